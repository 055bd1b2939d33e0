'use client';

import { Fault } from '@/ui/builder/shell/fault.tsx';

export default function ScreenError(props: { error: Error; reset: () => void }) {
  return <Fault title="This screen could not be shown" {...props} />;
}
