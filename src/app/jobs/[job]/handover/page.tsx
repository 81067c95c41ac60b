import { HandoverView } from '../../../../ui/handover/handover-view'

export default function Page() {
  return <HandoverView />
}
