//! Build vector shapes from numbers: place vertices, join them with straight segments, arcs and curves, paint the result and export it.
//!
//! ```
//! use chordane::prelude::*;
//!
//! let sail = start(pt(0.0, -120.0)).line(pt(90.0, -30.0)).line(pt(0.0, 120.0)).line(pt(-90.0, -30.0)).close();
//! let vent = circle(pt(0.0, -30.0), 18.0);
//! let sheet = sheet(640.0, 480.0)
//!     .centred()
//!     .ground("#f4efe6")
//!     .add(sail.with_hole(vent).fill("#c8553d").stroke("#20303c", 3.0));
//! # let folder = tempfile::tempdir()?;
//! # let file = folder.path().join("first-sail.svg");
//! # let first_sail = file.to_str().unwrap();
//! # if false {
//! sheet.save("first-sail.svg")?;
//! # }
//! sheet.save(first_sail)?;
//! # Ok::<(), Box<dyn std::error::Error>>(())
//! ```
//!
//! # Modules
//!
//! Data flows one way; a module uses only the modules listed before it: [`ground`] (faults), [`number`] (angles and points), [`path`] (the
//! [`Pen`](path::Pen) makes a [`Path`](path::Path) of contours), [`shape`] (ready ones), [`measure`], [`chance`] (dice), [`reshape`]
//! (a path in, a path out), [`combine`] (union, intersection, difference), [`sheet`](mod@sheet) (a path with a style is an
//! [`Item`](sheet::Item), a [`Sheet`](sheet::Sheet) holds them), [`scene`] (what is where on a sheet), [`check`] (findings), [`raster`] (pixels),
//! [`write`](mod@write) (SVG, PNG, files), [`picture`] (bones, contact sheets), `read` (SVG documents in; with the feature `svg-read`), [`draft`] (shapes drawn vertex by
//! vertex).
//!
//! # Conventions
//!
//! - All numbers are `f64`; a [`Point`](number::Point) is glam's `DVec2`, and wherever one is taken a pair is too.
//! - x runs to the right and y runs **down**; the origin is the sheet's top left corner unless the sheet says
//!   otherwise. Angle 0 points along +x, and a positive angle turns **clockwise as seen**.
//! - No function takes a bare number for an angle: write [`deg`](number::deg), [`rad`](number::rad) or
//!   [`turns`](number::turns).
//! - Lengths are sheet units. A tolerance is a length too: no point of the result is farther than that from the
//!   true curve.
//! - Values are immutable: every call returns a new one.
//! - Nothing panics. What is merely empty gives an empty path. What cannot be (a number that is not finite, a
//!   colour text that names no colour) is a [`Fault`]: fluent calls remember the first one, and everything that leaves the
//!   library gives it back as an error; so does [`Path::sound`](path::Path::sound).
//! - The same input gives the same bytes, on any number of threads.

/// The README's Rust, compiled and run with the tests of the docs.
#[cfg(all(doctest, feature = "png"))]
#[doc = include_str!("../README.md")]
#[derive(Debug)]
pub struct Readme;

mod arrange;
pub mod chance;
pub mod check;
pub mod combine;
pub mod draft;
pub mod ground;
pub mod measure;
pub mod motion;
pub mod number;
pub mod path;
pub mod picture;
pub mod prelude;
pub mod raster;
#[cfg(any(feature = "png", feature = "svg-read"))]
pub mod read;
pub mod reshape;
pub mod scene;
pub mod shape;
pub mod sheet;
pub mod write;

/// Points and transforms are glam types. An incompatible version of glam means an incompatible version of this library.
pub use glam;
pub use ground::{Fault, FaultKind};
