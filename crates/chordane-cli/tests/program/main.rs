//! The tests of the command, run as its users run it: one program with a module for each subject.

#![allow(clippy::unwrap_used, clippy::expect_used, reason = "a test stops where it fails")]

mod again;
mod browser;
mod browser_edit;
mod browser_kept;
mod browser_live;
mod browser_speed;
mod browser_trace;
mod clips;
mod command;
mod contact_sheets;
mod documents;
mod drags;
mod files;
mod findings;
mod moving;
mod pages;
mod sheets;
mod support;
