//! The tests of scores: one program with a module for each subject.

#![allow(clippy::unwrap_used, clippy::expect_used, reason = "a test stops where it fails")]

mod drafts;
mod extremes;
mod holds;
mod language;
mod loops;
mod marks;
mod memory;
mod rewriting;
mod runs;
mod scripts;
mod support;
mod twins;
mod words;
