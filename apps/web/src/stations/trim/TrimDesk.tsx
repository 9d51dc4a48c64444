import { WaysPage } from '../../ways/WaysPage.tsx';
import { CountDesk } from '../../counting/CountDesk.tsx';
import { SubNav } from '../../design/SubNav.tsx';

export const TrimRooms = () => (
  <SubNav
    label="Rooms of the trim station"
    rooms={[
      { to: '/trim', name: 'Waiting' },
      { to: '/trim/sample', name: 'On the scale' },
      { to: '/trim/ways', name: 'Ways' },
    ]}
  />
);

/** How heads are trimmed here. */
export const TrimWays = () => <WaysPage station="trim" rooms={<TrimRooms />} />;

/** What waits to be trimmed. */
export const TrimDesk = () => <CountDesk station="trim" rooms={<TrimRooms />} />;
