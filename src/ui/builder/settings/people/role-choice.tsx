import { ROLES } from '@/core/design/roles.ts';
import type { Account } from '@/server/db/people.ts';

/** A choice of a role. */
export function RoleChoice({
  label,
  role,
  disabled,
  onChange,
}: {
  label: string;
  role: Account['role'];
  disabled: boolean;
  onChange: (role: Account['role']) => void;
}) {
  return (
    <select
      className="control !w-32 shrink-0"
      aria-label={label}
      value={role}
      disabled={disabled}
      onChange={(e) => onChange(e.target.value as Account['role'])}
    >
      {ROLES.map((one) => (
        <option key={one.role} value={one.role}>
          {one.label}
        </option>
      ))}
    </select>
  );
}
