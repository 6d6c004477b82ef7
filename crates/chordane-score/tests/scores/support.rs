//! What the tests of scores share.

use chordane::prelude::*;
use chordane_score::{Pictures, Settings};

/// A small picture of a kite.
pub(crate) fn kite_picture() -> Picture {
    let kite = polygon((8.0, 6.0), 4, 6.0).fill("#c8553d");
    Picture::from(sheet(16.0, 12.0).ground("#dfe9ee").add(kite).pixels().unwrap())
}

/// Settings in which that picture is handed in, at the third of ten frames.
pub(crate) fn with_kite() -> Settings {
    Settings::new().pictures(Pictures::new().with("kite.png", kite_picture())).frame(3, 10)
}
