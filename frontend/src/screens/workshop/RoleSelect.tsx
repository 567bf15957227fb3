import type { Role } from "../../api/client";

export const ROLES: Record<Role, string> = {
  owner: "owner",
  editor: "editor (may change)",
  viewer: "viewer (may look)",
};

export function RoleSelect({
  label,
  value,
  onChange,
}: {
  label: string;
  value: Role;
  onChange: (role: Role) => void;
}) {
  return (
    <select
      aria-label={label}
      className="plain"
      value={value}
      onChange={(event) => onChange(event.target.value as Role)}
    >
      {Object.entries(ROLES).map(([role, words]) => (
        <option key={role} value={role}>
          {words}
        </option>
      ))}
    </select>
  );
}
