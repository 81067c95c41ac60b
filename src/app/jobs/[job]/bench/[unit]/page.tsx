import { WindowView } from '../../../../../ui/window/window-view'

export default async function Page({ params }: { params: Promise<{ unit: string }> }) {
  return <WindowView id={decodeURIComponent((await params).unit)} />
}
