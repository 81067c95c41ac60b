/** The job that somebody names. */
export { findJob, type Job, jobIdOf, jobSlugs, namedJobs, StaleVersionError } from '../store/jobs'
