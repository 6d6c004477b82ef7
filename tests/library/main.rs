//! The library's tests: one program with a module for each subject, so that the library is linked once. `parts` holds those of single routines.

#![allow(clippy::unwrap_used, clippy::expect_used, reason = "a test stops where it fails")]

mod answers;
mod bad_input;
mod clips;
mod close_curves;
mod combine;
mod copies;
mod coverage;
mod data;
mod drafts;
mod edits;
mod examples;
mod finding_kinds;
mod findings;
mod laws;
mod layers;
mod loops;
mod measures;
mod meetings;
mod morphs;
mod outlines;
mod parallels;
mod parts;
mod path_data;
mod pictures;
mod pixels;
mod programs;
mod properties;
mod read;
mod reshapes;
mod scenes;
mod shapes;
mod sheets;
mod stamps;
mod strokes;
mod styles;
mod support;
mod svg;
mod twins;
