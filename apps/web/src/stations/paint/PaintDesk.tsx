import { CountDesk } from '../count/CountDesk.tsx';
import { PaintRooms } from './rooms.tsx';

/** What waits for paint. */
export const PaintDesk = () => <CountDesk station="paint" rooms={<PaintRooms />} />;
