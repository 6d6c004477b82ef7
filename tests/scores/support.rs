//! What the tests of scores share.

use chordane::prelude::*;
use chordane_score::{MarkFrame, Marks};
use chordane_score::{Pictures, Settings};

/// A small picture of a kite.
pub(crate) fn kite_picture() -> Picture {
    let kite = polygon((8.0, 6.0), 4, 6.0).fill("#c8553d");
    Picture::from(sheet(16.0, 12.0).ground("#dfe9ee").add(kite).pixels().unwrap())
}

/// Settings in which that picture and the marks are handed in, at the third of ten frames.
pub(crate) fn with_kite() -> Settings {
    let pictures = Pictures::new().with("kite.png", kite_picture());
    Settings::new().pictures(pictures).marks(kite_marks()).frame(3, 10)
}

/// Marks of two frames: the corners of a kite and two bows of its tail, of which one is lost.
pub(crate) fn kite_marks() -> Marks {
    let first = [
        (0, pt(0.0, -40.0)),
        (1, pt(30.0, -8.0)),
        (2, pt(0.0, 44.0)),
        (3, pt(-30.0, -8.0)),
        (5, pt(4.0, 60.0)),
        (6, pt(-4.0, 76.0)),
    ];
    let second = first.into_iter().take(5).map(|(number, at)| (number, at + pt(5.0, 0.0)));
    Marks::from(vec![MarkFrame::new(first), MarkFrame::new(second)])
}
