import { type GivenRole, ROLES, type Role } from '@/core/design/roles.ts';

/** A choice of a role. */
export function RoleChoice({
  label,
  role,
  disabled,
  onChange,
}: {
  label: string;
  role: Role;
  disabled: boolean;
  onChange: (role: GivenRole) => void;
}) {
  return (
    <select
      className="control !w-32 shrink-0"
      aria-label={label}
      value={role}
      disabled={disabled}
      onChange={(e) => onChange(e.target.value as GivenRole)}
    >
      {ROLES.map((one) => (
        <option key={one.role} value={one.role}>
          {one.label}
        </option>
      ))}
    </select>
  );
}
