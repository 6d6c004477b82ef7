//! What must hold whatever comes in.
//!
//! Each function takes bytes and panics where something does not hold. The fuzzer looks for such bytes (`fuzz/run`); the test
//! of this package runs through the seeds, and through what was once found.

mod drawing;
mod messages;
mod shapes;
mod texts;

pub use messages::messages;
pub use shapes::{combining, filling, reshapes};
pub use texts::{documents, marks, metadata, path_data, rewriting, scores};

/// A check of bytes.
pub type Check = fn(&[u8]);

/// All checks, by their names.
pub const CHECKS: [(&str, Check); 10] = [
    ("path_data", path_data),
    ("documents", documents),
    ("scores", scores),
    ("rewriting", rewriting),
    ("metadata", metadata),
    ("marks", marks),
    ("messages", messages),
    ("reshapes", reshapes),
    ("combining", combining),
    ("filling", filling),
];
