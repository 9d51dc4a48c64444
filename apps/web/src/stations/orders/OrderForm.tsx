import { yupResolver } from '@hookform/resolvers/yup';
import { orderSchema, type Order, type OrderInput } from '@schmelz/contract';
import { useFieldArray, useForm, type Resolver } from 'react-hook-form';
import { Link, useNavigate, useParams } from 'react-router';
import { useOrder, useSave } from '../../api/queries.ts';
import { Button } from '../../design/Button.tsx';
import { Choice, TextField } from '../../design/Field.tsx';
import { Icon } from '../../design/Icon.tsx';
import { ProblemNote, Waiting } from '../../design/Notice.tsx';
import { Heading, Page, TheNumber } from '../../design/Page.tsx';
import { Head } from '../../drawing/Head.tsx';
import { useCatalogue, type Catalogue } from '../../shell/catalogue.ts';

/** The order as the form holds it; an empty due date is none. */
const emptyOrder = (catalogue: Catalogue): OrderInput => ({
  customer: '',
  dueOn: null,
  note: '',
  lines: [{ productId: catalogue.products[0]?.id ?? '', quantity: 24 }],
});

function Form({ catalogue, order }: { catalogue: Catalogue; order?: Order }) {
  const navigate = useNavigate();
  const save = useSave('orders');
  const form = useForm<OrderInput>({
    resolver: yupResolver(orderSchema, { abortEarly: false }) as unknown as Resolver<OrderInput>,
    defaultValues: order
      ? { customer: order.customer, dueOn: order.dueOn, note: order.note, lines: order.lines }
      : emptyOrder(catalogue),
  });
  const { fields, append, remove } = useFieldArray({ control: form.control, name: 'lines' });
  const { errors } = form.formState;
  const lines = form.watch('lines');
  const heads = lines.reduce((sum, line) => sum + (Number.isFinite(line.quantity) ? line.quantity : 0), 0);
  const submit = form.handleSubmit((input) => {
    const change = order ? { id: order.id, version: order.version } : {};
    save.mutate({ ...input, ...change }, { onSuccess: (saved) => void navigate(`/orders/${saved.id}`) });
  });
  return (
    <Page
      stub={
        <>
          <TheNumber value={heads}>{heads === 1 ? 'head ordered' : 'heads ordered'}</TheNumber>
          <p className="quiet">
            Next you see the plan: shots, lead, hooks, powder, minutes, cost, and what is missing.
          </p>
        </>
      }
    >
      <form onSubmit={(event) => void submit(event)} className="flex max-w-[760px] flex-col gap-5" noValidate>
        <Heading>{order ? `Order ${order.number}` : 'New order'}</Heading>
        <div className="grid gap-4 sm:grid-cols-2">
          <TextField
            label="For whom"
            hint="Empty: for the shelf"
            {...form.register('customer')}
            error={errors.customer?.message}
            autoFocus
          />
          <TextField
            label="Due"
            type="date"
            {...form.register('dueOn', { setValueAs: (text: string | null) => text || null })}
            error={errors.dueOn?.message}
          />
        </div>
        <fieldset className="flex flex-col gap-3">
          <legend className="mb-2 font-medium">What and how many</legend>
          {fields.map((field, index) => {
            const product = catalogue.product(lines[index]?.productId ?? '');
            return (
              <div
                key={field.id}
                className="grid grid-cols-[minmax(0,1fr)_92px_40px] items-end gap-3 sm:grid-cols-[84px_minmax(0,1fr)_110px_40px]"
              >
                <span className="hidden h-10 items-center sm:flex">
                  {product && (
                    <Head
                      {...catalogue.spec(product)}
                      paint={catalogue.paint(product)}
                      state="baked"
                      scale={1.7}
                      className="max-h-11"
                    />
                  )}
                </span>
                <Choice
                  label="Product"
                  options={catalogue.products.map(({ id, name }) => ({ value: id, label: name }))}
                  {...form.register(`lines.${index}.productId`)}
                  error={errors.lines?.[index]?.productId?.message}
                />
                <TextField
                  label="Heads"
                  inputMode="numeric"
                  {...form.register(`lines.${index}.quantity`, { valueAsNumber: true })}
                  error={errors.lines?.[index]?.quantity?.message}
                />
                <button
                  type="button"
                  aria-label={`Remove line ${index + 1}`}
                  onClick={() => remove(index)}
                  disabled={fields.length === 1}
                  className="grid h-10 place-items-center disabled:opacity-30"
                >
                  <Icon name="close" size={14} />
                </button>
              </div>
            );
          })}
          {errors.lines?.root && <p className="text-sm text-stop">{errors.lines.root.message}</p>}
          {errors.lines?.message && <p className="text-sm text-stop">{errors.lines.message}</p>}
          <div className="flex flex-wrap gap-4">
            <Button onClick={() => append({ productId: catalogue.products[0]!.id, quantity: 24 })}>
              <Icon name="plus" size={14} /> Another product
            </Button>
            <Button look="quiet" asChild>
              <Link to="/products">A product that is not in the list</Link>
            </Button>
            {!order && (
              <Button look="quiet" asChild>
                <Link to="/orders/grid">Many at once, by head and paint</Link>
              </Button>
            )}
          </div>
        </fieldset>
        <TextField label="Note" {...form.register('note')} error={errors.note?.message} />
        <ProblemNote error={save.error} />
        <div>
          <Button look="main" type="submit" disabled={save.isPending}>
            See the plan
          </Button>
        </div>
      </form>
    </Page>
  );
}

export function OrderFormPage() {
  const { id } = useParams();
  const catalogue = useCatalogue();
  if (!catalogue) return <Waiting />;
  if (catalogue.products.length === 0) {
    return (
      <Page stub={<TheNumber value={0}>products to order</TheNumber>}>
        <p className="mb-4">An order names products, and there is none yet.</p>
        <Button look="main" asChild>
          <Link to="/start">First mold, hook and product</Link>
        </Button>
      </Page>
    );
  }
  return id ? <Change id={id} catalogue={catalogue} /> : <Form catalogue={catalogue} />;
}

function Change({ id, catalogue }: { id: string; catalogue: Catalogue }) {
  const { data: order, error } = useOrder(id);
  return order ? <Form catalogue={catalogue} order={order} /> : <Waiting error={error} />;
}
