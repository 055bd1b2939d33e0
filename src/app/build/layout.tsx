import type { Metadata } from 'next';
import { connection } from 'next/server';
import type { ReactNode } from 'react';
import '../globals.css';

export const metadata: Metadata = {
  title: { default: 'Bontel', template: '%s · Bontel' },
  robots: { index: false },
};

export default async function BuilderDocument({ children }: { children: ReactNode }) {
  await connection(); // each answer has its own nonce, so none is made beforehand
  return (
    <html lang="en">
      <body>{children}</body>
    </html>
  );
}
