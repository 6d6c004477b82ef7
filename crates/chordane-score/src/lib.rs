//! Scores: small programs that return a [`Sheet`](chordane::sheet::Sheet).
//!
//! A score is a Rust closure or a script in a `.chord` file; both use the same words. A script is read by an
//! embedded engine that reaches no file, no network and no environment, and runs within [`Limits`]. What goes
//! wrong comes back as a [`ScoreError`], which knows its place in the source.
//!
//! On `wasm32-unknown-unknown` scores are read and run on the one thread there is, whose stack is small: set [`Limits::depth`] low. There is no clock,
//! so that [`Limits::time`] never runs out; the limit of steps holds. This is compiled, and not tested. Pictures are handed in by name there.
//!
//! ```
//! use chordane_score::{Limits, Score, Script};
//!
//! let script = Script::read("sail.chord", r##"
//!     let sail = polygon(pt(0, 0), 4, 120);
//!     sheet(640, 480).centred().ground("#f4efe6").add(sail.fill("#c8553d"))
//! "##, Limits::default())?;
//! assert_eq!(script.sheet()?.size.x, 640.0);
//!
//! let mistake = Script::read("sail.chord", "circel(pt(0, 0), 5)", Limits::default()).unwrap().sheet().unwrap_err();
//! assert_eq!(mistake.to_string(), "there is no word `circel`");
//! assert_eq!(mistake.advice(), Some("did you mean `circle`?"));
//! # Ok::<(), chordane_score::ScoreError>(())
//! ```

/// The README's Rust, compiled and run with the tests of the docs.
#[cfg(doctest)]
#[doc = include_str!("../README.md")]
#[derive(Debug)]
pub struct Readme;

mod brackets;
mod budget;
mod call;
mod call_error;
mod clock;
mod declarations;
#[cfg(feature = "miette")]
mod diagnostic;
pub mod drafts;
mod edits;
mod engine;
mod explain;
mod gauge;
mod given;
mod holds;
mod knob;
mod knob_value;
mod limits;
mod lists;
mod loops;
mod marks;
mod mends;
mod numbers;
mod operators;
mod outer;
mod pictures;
mod pointer;
mod runner;
mod running;
mod score;
mod score_error;
mod script;
mod settings;
mod stage;
mod unkept;
mod values;
mod vertices;
pub mod words;
mod worker;

pub use chordane;
pub use gauge::Gauge;
pub use given::GivenValue;
pub use holds::{Drag, Dragged, Hold, Holds};
pub use knob::{Knob, KnobKind, KnobProblem};
pub use knob_value::KnobValue;
pub use limits::Limits;
pub use loops::LoopError;
pub use marks::{MarkFrame, Marks, MarksReader, MarksReading, Skipped};
pub use mends::mended;
pub use numbers::Number;
pub use pictures::Pictures;
pub use pointer::{Pointer, PointerTrack};
pub use runner::{Run, Runner, UNUSED_KNOB};
pub use score::{IntoSheet, Score};
pub use score_error::ScoreError;
pub use script::Script;
pub use settings::{Moment, Settings};
pub use stage::Stage;
pub use words::Words;
