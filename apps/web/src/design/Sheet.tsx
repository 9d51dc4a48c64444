import { Dialog } from 'radix-ui';
import type { ReactNode } from 'react';
import { Icon } from './Icon.tsx';

/** A sheet laid over the page for one short task; Escape puts it away. */
export function Sheet({
  open,
  onOpenChange,
  title,
  says,
  children,
  trigger,
}: {
  open?: boolean;
  onOpenChange?: (open: boolean) => void;
  title: string;
  says?: string;
  children: ReactNode;
  trigger?: ReactNode;
}) {
  return (
    <Dialog.Root open={open} onOpenChange={onOpenChange}>
      {trigger && <Dialog.Trigger asChild>{trigger}</Dialog.Trigger>}
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-veil/45" />
        <Dialog.Content
          aria-describedby={undefined}
          className="cut arrive fixed top-[72px] right-4 z-50 max-h-[calc(100vh-96px)] w-[min(560px,calc(100vw-32px))] overflow-auto bg-plate p-6 shadow-xl"
        >
          <div className="mb-4 flex items-start justify-between gap-4">
            <div>
              <Dialog.Title className="voice text-xl">{title}</Dialog.Title>
              {says && <p className="quiet mt-1">{says}</p>}
            </div>
            <Dialog.Close aria-label="Put away" className="grid size-10 shrink-0 place-items-center hover:bg-well">
              <Icon name="close" />
            </Dialog.Close>
          </div>
          {children}
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
