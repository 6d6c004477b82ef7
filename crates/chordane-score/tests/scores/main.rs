//! The tests of scores: one program with a module for each subject.

#![allow(clippy::unwrap_used, clippy::expect_used, reason = "a test stops where it fails")]

/// As in the command: what each score holds is counted.
#[global_allocator]
static ALLOCATOR: chordane_score::CountingAllocator<std::alloc::System> =
    chordane_score::CountingAllocator::system();

mod drafts;
mod extremes;
mod holds;
mod language;
mod loops;
mod rewriting;
mod runs;
mod same;
mod scripts;
mod support;
mod twins;
mod words;
