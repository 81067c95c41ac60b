import { getStore } from '../../../../../actions/store'
import { cardTexts } from '../../../../../jobs/kit'
import { CardsView } from '../../../../../ui/kit/cards-view'

export default async function Page({ searchParams }: { searchParams: Promise<{ model?: string }> }) {
  return <CardsView lines={await cardTexts(await getStore())} chosen={(await searchParams).model} />
}
