import { CountDesk } from '../count/CountDesk.tsx';
import { WaysPage } from '../ways/WaysPage.tsx';
import { PaintRooms } from './rooms.tsx';

/** How heads are painted here. */
export const PaintWays = () => <WaysPage station="paint" rooms={<PaintRooms />} />;

/** What waits for paint. */
export const PaintDesk = () => <CountDesk station="paint" rooms={<PaintRooms />} />;
