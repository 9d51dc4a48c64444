import { SubNav } from '../../design/SubNav.tsx';

export const LeadRooms = () => (
  <SubNav
    label="Rooms of the lead station"
    rooms={[
      { to: '/lead', name: 'Lots' },
      { to: '/lead/melt', name: 'Melting' },
      { to: '/lead/dial', name: 'Dial' },
      { to: '/lead/cast', name: 'What it casts' },
      { to: '/lead/probes', name: 'Probes' },
    ]}
  />
);
