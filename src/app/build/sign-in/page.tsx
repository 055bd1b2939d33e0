import { SignIn } from '@/ui/builder/shell/sign-in.tsx';

export const metadata = { title: 'Sign in' };

export default function Page() {
  return <SignIn />;
}
