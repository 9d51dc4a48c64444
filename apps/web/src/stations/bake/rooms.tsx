import { SubNav } from '../../design/SubNav.tsx';

export const BakeRooms = () => (
  <SubNav
    label="Rooms of the bake station"
    rooms={[
      { to: '/bake', name: 'Waiting' },
      { to: '/bake/loads', name: 'Loads' },
      { to: '/bake/program', name: 'Which program' },
      { to: '/bake/oven', name: 'Oven and racks' },
      { to: '/bake/past', name: 'Past bakes' },
      { to: '/bake/log', name: 'From a log' },
    ]}
  />
);
