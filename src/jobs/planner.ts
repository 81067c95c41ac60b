/** The worker thread that plans: takes what a plan is made of, gives the plan back. */
import { parentPort, workerData } from 'node:worker_threads'
import { makePlan, type PlanInput } from '../core/plan/plan'

parentPort?.postMessage(makePlan(workerData as PlanInput))
