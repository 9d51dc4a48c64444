import { useState, type FormEvent } from 'react';
import { call } from '../api/client.ts';
import { tryAgain } from '../api/delivery.ts';
import { useWrite } from '../api/queries.ts';
import { Button } from '../design/Button.tsx';
import { TextField } from '../design/Field.tsx';
import { ProblemNote } from '../design/Notice.tsx';

/** Where the workshop is reached over the house network, it asks for its password first. */
export function Login() {
  const [password, setPassword] = useState('');
  const login = useWrite((given: string) => call('POST /login', { body: { password: given } }));
  const submit = (event: FormEvent) => {
    event.preventDefault();
    login.mutate(password, { onSuccess: tryAgain }); // what was tapped meanwhile goes on its way
  };
  return (
    <main className="mx-auto mt-[14vh] w-[min(360px,calc(100vw-32px))]">
      <h1 className="voice mb-6 text-2xl">Schmelz</h1>
      <form onSubmit={submit} className="flex flex-col gap-4">
        <TextField
          label="Password of this workshop"
          type="password"
          value={password}
          onChange={(event) => setPassword(event.target.value)}
          autoFocus
        />
        <ProblemNote error={login.error} />
        <Button look="main" type="submit">
          Come in
        </Button>
      </form>
    </main>
  );
}
