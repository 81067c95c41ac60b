import { KitView } from '../../../../ui/kit/kit-view'

export default function Page() {
  return <KitView />
}
