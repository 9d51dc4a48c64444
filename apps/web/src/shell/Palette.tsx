import { Command } from 'cmdk';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { useList, useLine } from '../api/queries.ts';
import { Key } from '../design/Button.tsx';
import { STATIONS, forWhom } from '@schmelz/core';
import { chooseTheme } from './theme.ts';

const KEYS: [string, string][] = [
  ['/', 'find anything'],
  ['Space', 'poured, good, in or out: the one next thing at the bench'],
  ['1 to 9', 'that cavity of the last shot is bad; the cause by its letter'],
  ['S F V L E O', 'short, flash, void, loose hook, eye full, other'],
  ['Z', 'undo'],
  ['Y', 'bring back what was undone'],
  ['P', 'pause, and on again'],
  ['B', 'a blank shot'],
  ['D', "the oven's door is open, and shut again"],
  ['M', 'the metronome at the paint'],
  ['Esc', 'put a sheet away'],
];

/** Rooms within the stations. */
const ROOMS = [
  ['/lead/melt', 'Melting and feeding the pot'],
  ['/lead/dial', "The pot's dial"],
  ['/trim/sample', 'Heads on the scale'],
  ['/trim/ways', 'Ways of trimming'],
  ['/paint/recipes', 'Recipes side by side'],
  ['/paint/jars', 'Powder left in the jars'],
  ['/paint/ways', 'Ways of painting'],
  ['/paint/heat', 'Seconds under gun or torch'],
  ['/paint/order', 'Order of colours'],
  ['/bake/loads', 'Oven loads on their racks'],
  ['/bake/oven', 'The oven and its racks'],
  ['/bake/program', 'Which bake program'],
  ['/bake/past', 'Past bakes and their cure'],
  ['/bake/log', 'A bake from an oven log'],
  ['/lead/cast', 'What a cavity casts in another metal'],
  ['/lead/probes', 'Probes and logs'],
  ['/molds/parts', 'Pins, plugs, keepers'],
  ['/products/templates', 'Products as the trade makes them'],
  ['/trace', 'Trace a bag'],
] as const;

/** Letters that were typed before the palette stood. */
export interface TypedAhead {
  /** All of them; what is typed from now on goes into the field. */
  take(): string;
}

/** Find a place, an order or a ticket by typing; with the list of keys below. */
export function Palette({
  open,
  onOpenChange,
  typed,
}: {
  open: boolean;
  onOpenChange: (open: boolean) => void;
  typed?: TypedAhead;
}) {
  const navigate = useNavigate();
  const { data: orders } = useList('orders');
  const { data: molds } = useList('molds');
  const { data: line } = useLine();
  const [search, setSearch] = useState('');
  const go = (to: string) => () => {
    onOpenChange(false);
    void navigate(to);
  };
  const item = 'flex justify-between gap-4 px-4 py-2.5 data-[selected=true]:bg-ink data-[selected=true]:text-on-ink';
  const group =
    '[&_[cmdk-group-heading]]:px-4 [&_[cmdk-group-heading]]:pt-3 [&_[cmdk-group-heading]]:pb-1 [&_[cmdk-group-heading]]:text-sm [&_[cmdk-group-heading]]:text-ink-3';
  return (
    <Command.Dialog
      open={open}
      onOpenChange={onOpenChange}
      label="Find anything"
      overlayClassName="fixed inset-0 z-40 bg-veil/45"
      contentClassName="fixed top-[10vh] left-1/2 z-50 w-[min(600px,calc(100vw-32px))] -translate-x-1/2"
      className="cut bg-sheet shadow-xl"
    >
      <Command.Input
        value={search}
        onValueChange={setSearch}
        onFocus={() => setSearch((known) => known + (typed?.take() ?? ''))}
        placeholder="Station, order, ticket"
        className="h-14 w-full border-b border-rule bg-transparent px-4 text-lg outline-none"
      />
      <Command.List className="max-h-[56vh] overflow-auto pb-3">
        <Command.Empty className="quiet px-4 py-3">Nothing of that name.</Command.Empty>
        <Command.Group heading="Places" className={group}>
          <Command.Item className={item} onSelect={go('/')}>
            The line
          </Command.Item>
          {[...STATIONS.map((station) => station.name), 'Products', 'Orders', 'Stock', 'Books', 'Setup'].map(
            (place) => (
              <Command.Item key={place} className={item} onSelect={go(`/${place.toLowerCase()}`)}>
                {place}
              </Command.Item>
            ),
          )}
          {ROOMS.map(([to, name]) => (
            <Command.Item key={to} className={item} onSelect={go(to)}>
              {name}
            </Command.Item>
          ))}
          {molds?.map((mold) => (
            <Command.Item key={mold.id} className={item} onSelect={go(`/molds/${mold.id}`)}>
              {mold.name} <span className="opacity-70">mold</span>
            </Command.Item>
          ))}
          <Command.Item className={item} onSelect={go('/orders/new')}>
            New order
          </Command.Item>
        </Command.Group>
        <Command.Group heading="Tickets on the line" className={group}>
          {line?.tickets.map((ticket) => (
            <Command.Item key={ticket.id} className={item} onSelect={go(`/tickets/${ticket.id}`)}>
              {`Ticket ${ticket.number}`} <span className="opacity-70">{forWhom(ticket.customer)}</span>
            </Command.Item>
          ))}
        </Command.Group>
        <Command.Group heading="Orders" className={group}>
          {orders
            ?.filter((order) => order.status !== 'done')
            .map((order) => (
              <Command.Item key={order.id} className={item} onSelect={go(`/orders/${order.id}`)}>
                {`Order ${order.number}`} <span className="opacity-70">{forWhom(order.customer)}</span>
              </Command.Item>
            ))}
        </Command.Group>
        <Command.Group heading="Light" className={group}>
          {(['by place', 'light', 'dark'] as const).map((choice) => (
            <Command.Item
              key={choice}
              className={item}
              onSelect={() => {
                chooseTheme(choice);
                onOpenChange(false);
              }}
            >
              {choice === 'by place' ? 'Light at the desk, dark at the bench' : `Always ${choice}`}
            </Command.Item>
          ))}
        </Command.Group>
        <Command.Group heading="Keys" className={group}>
          {KEYS.map(([key, does]) => (
            <Command.Item key={key} className={item} onSelect={() => onOpenChange(false)} value={`key ${key} ${does}`}>
              <span>{does}</span> <Key>{key}</Key>
            </Command.Item>
          ))}
        </Command.Group>
      </Command.List>
    </Command.Dialog>
  );
}
