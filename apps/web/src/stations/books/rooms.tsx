import { SubNav } from '../../design/SubNav.tsx';

/** The rooms of the books, each a question. */
export const BooksRooms = () => (
  <SubNav
    label="Rooms of the books"
    rooms={[
      { to: '/books', name: 'Tickets' },
      { to: '/books/cost', name: 'Cost and price' },
      { to: '/books/metal', name: 'Metal' },
      { to: '/books/quality', name: 'What came out bad' },
      { to: '/books/plans', name: 'How well we plan' },
      { to: '/books/months', name: 'Months' },
      { to: '/books/sales', name: 'Who and what' },
      { to: '/books/paper', name: 'From paper' },
    ]}
  />
);
