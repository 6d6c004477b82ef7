//! Findings on names.

use crate::sheet::Layered;
use std::collections::HashMap;

use super::Drawn;
use super::finding::{Code, Findings, Level};

/// Items of one name that were made in different places. Copies of one item share its name, and are meant to.
pub(super) fn look(drawn: &[Drawn<'_>], findings: &mut Findings) {
    let mut first: HashMap<&str, &Drawn<'_>> = HashMap::new();
    for one in drawn {
        let Some(name) = one.item.name() else { continue };
        let before = *first.entry(name).or_insert(one);
        let apart = match (before.item.line(), one.item.line()) {
            (Some(a), Some(b)) => a != b,
            _ => before.item.path() != one.item.path(),
        };
        let Some(at) = one.path.contours().first().filter(|_| apart).map(|contour| contour.start()) else {
            continue;
        };
        let seen = match before.item.line() {
            Some(line) => format!("what was made in line {line} has the same name"),
            None => format!("path {} has the same name", before.number),
        };
        let mend = ("give one of them another name with named(..)", "give one of them another id");
        findings.add((Code::SameName, Level::Hint), one, (0, at), seen, mend);
    }
}
