/** What pages follow: events from a number on, and who works here. */
export { eventsAfter } from '../store/events'
export { newestReport } from '../store/runners'
