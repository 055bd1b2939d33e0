'use client';

import { Fault } from '@/ui/builder/shell/fault.tsx';

export default function BuilderError(props: { error: Error; reset: () => void }) {
  return <Fault title="The builder could not be shown" {...props} />;
}
