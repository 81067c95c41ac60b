import { MusterView } from '../../../../ui/muster/muster-view'

export default function Page() {
  return <MusterView />
}
