import { NavLink } from 'react-router'
import { useTitle } from '@/lib/use-title'

/** The views of one place, each with an address of its own. */
export function SubNav({ label, views }: { label: string; views: readonly { to: string; name: string; count?: number | undefined }[] }) {
  return (
    <nav aria-label={label} className="flex flex-wrap gap-1 border-b border-line">
      {views.map((v) => (
        <NavLink
          key={v.to}
          to={v.to}
          end
          className={({ isActive }) =>
            `-mb-px inline-flex min-h-11 items-center gap-2 border-b-3 px-3 ${isActive ? 'border-ink font-bold' : 'border-transparent text-quiet hover:text-ink'}`
          }
        >
          {v.name}{' '}
          {v.count !== undefined && <span className="figures rounded bg-mat px-1.5 text-tiny font-semibold">{v.count}</span>}
        </NavLink>
      ))}
    </nav>
  )
}

/** A page of its own on the mat. */
export function Page({ title, lead, children, actions, name }: { name?: string; title: React.ReactNode; lead?: React.ReactNode; children: React.ReactNode; actions?: React.ReactNode }) {
  useTitle(name ?? (typeof title === 'string' ? title : ''))
  return (
    <div className="mat-grid h-full overflow-y-auto p-4 lg:p-6">
      <div className="mx-auto max-w-6xl space-y-4 pb-8">
        <div className="flex flex-wrap items-end justify-between gap-3">
          <div>
            <h1 className="text-[1.55rem] font-bold">{title}</h1>
            {lead && <p className="max-w-[75ch] text-quiet">{lead}</p>}
          </div>
          {actions && <div className="flex flex-wrap gap-2">{actions}</div>}
        </div>
        {children}
      </div>
    </div>
  )
}
