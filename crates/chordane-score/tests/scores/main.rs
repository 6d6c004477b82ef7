//! The tests of scores: one program with a module for each subject.

#![allow(clippy::unwrap_used, clippy::expect_used, reason = "a test stops where it fails")]

mod same;
mod scripts;
mod words;
