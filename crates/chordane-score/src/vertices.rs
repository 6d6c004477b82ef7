//! Vertices put into the text of a script and taken out of it, where each is an element of a list or a call of a pen.

use chordane::number::Point;
use chordane::scene::{Grip, GripKind};

use crate::edits::edited;
use crate::{Hold, Holds};

/// So many ways to hold a vertex are looked at for the place in the text where it stands.
const MAX_BINDINGS_TRIED: usize = 6;

impl Holds {
    /// The script's text without a vertex: the element of a list, or the call of a pen, that it is written as. `None` where it is written as neither, so that
    /// nothing else of its item would change. Cost: a few runs.
    ///
    /// ```
    /// use std::time::Duration;
    /// use chordane_score::{Holds, Limits, Script, Settings};
    /// let text = "sheet(99, 60).add(closed([[9, 9], [50, 2], [90, 9], [50, 50]]).fill(\"teal\"))";
    /// let mut holds = Holds::new(Script::read("sail.chord", text, Limits::default())?, Settings::new())?;
    /// holds.learn(Duration::from_secs(9));
    /// assert_eq!(holds.without_vertex(1).unwrap(), text.replace("[50, 2], ", ""));
    /// # Ok::<(), chordane_score::ScoreError>(())
    /// ```
    #[must_use]
    pub fn without_vertex(&self, grip: usize) -> Option<String> {
        let text = self.script().source();
        let places = self.written(grip);
        places.into_iter().find_map(|(place, _)| {
            let after = match place {
                Written::Element { begin, end } => {
                    // With the comma behind it, or before the last one.
                    let behind = text.get(end..)?;
                    let space = behind.len() - behind.trim_start().len();
                    let (begin, end) = if behind.trim_start().starts_with(',') {
                        let rest = behind.get(space + 1..)?;
                        (begin, end + space + 1 + rest.len() - rest.trim_start().len())
                    } else {
                        let before = text.get(..begin)?.trim_end();
                        (before.strip_suffix(',').map_or(begin, str::len), end)
                    };
                    edited(text, [(begin..end, String::new())])
                }
                Written::Call { begin, end } => edited(text, [(begin..end, String::new())]),
            };
            let grips = self.places_of(&after)?;
            self.is_same_but(&grips, grip, -1).then_some(after)
        })
    }

    /// The script's text with one more vertex behind another, at a place: its element or call is written once more, with numbers that bring it there. `None`
    /// where that cannot be. Cost: some runs.
    ///
    /// ```
    /// use std::time::Duration;
    /// use chordane_score::{Holds, Limits, Script, Settings};
    /// let text = "sheet(99, 60).add(closed([[9, 9], [90, 9], [50, 50]]).fill(\"teal\"))";
    /// let mut holds = Holds::new(Script::read("sail.chord", text, Limits::default())?, Settings::new())?;
    /// holds.learn(Duration::from_secs(9));
    /// let after = holds.with_vertex(0, (50.0, 2.0).into(), 0.1).unwrap();
    /// assert_eq!(after, text.replace("[9, 9]", "[9, 9], [50, 2]"));
    /// # Ok::<(), chordane_score::ScoreError>(())
    /// ```
    #[must_use]
    pub fn with_vertex(&self, behind: usize, at: Point, within: f64) -> Option<String> {
        let text = self.script().source();
        let own = self.grips().get(behind)?;
        let GripKind::Vertex { contour, vertex } = own.kind else { return None };
        self.written(behind).into_iter().find_map(|(place, hold)| {
            // As it would be written if it stood there itself.
            let dragged = self.drag(behind, &hold).to(at, within);
            if dragged.held_back.is_some() {
                return None;
            }
            let (begin, end) = place.bytes();
            let other_end = (end + dragged.text.len()).checked_sub(text.len())?;
            let other = dragged.text.get(begin..other_end)?;
            let comma = if matches!(place, Written::Element { .. }) { ", " } else { "" };
            let after = edited(text, [(end..end, format!("{comma}{other}"))]);
            let grips = self.places_of(&after)?;
            let kind = GripKind::Vertex { contour, vertex: vertex + 1 };
            let new = grips.iter().find(|grip| grip.item == own.item && grip.kind == kind)?;
            (self.is_same_but(&grips, behind, 1) && new.at.distance(at) <= within).then_some(after)
        })
    }

    /// Whether places are those that there are, but for so many vertices of one contour.
    fn is_same_but(&self, grips: &[Grip], grip: usize, more: isize) -> bool {
        let Some(own) = self.grips().get(grip) else { return false };
        let GripKind::Vertex { contour, .. } = own.kind else { return false };
        let of_contour = |grip: &&Grip| {
            grip.item == own.item
                && matches!(grip.kind, GripKind::Vertex { contour: other, .. } if other == contour)
        };
        let (before, after) =
            (self.grips().iter().filter(of_contour).count(), grips.iter().filter(of_contour).count());
        let others = |all: &[Grip]| all.iter().filter(|grip| grip.item != own.item).count();
        before.checked_add_signed(more) == Some(after) && after > 0 && others(self.grips()) == others(grips)
    }

    fn places_of(&self, text: &str) -> Option<Vec<Grip>> {
        let script = self.script().reread(text).ok()?;
        Self::new(script, self.settings().clone()).ok().map(|holds| holds.grips().to_vec())
    }

    /// Where a vertex may be written: as an element of a list or as a call of a pen.
    fn written(&self, grip: usize) -> Vec<(Written, Hold)> {
        let script = self.script();
        let text = script.source();
        let mut all = Vec::new();
        for hold in self.of(grip).into_iter().filter(|hold| hold.numbers.len() == 2).take(MAX_BINDINGS_TRIED)
        {
            let begin = |number: &usize| script.numbers().get(*number).map(|number| number.bytes.start);
            let places: Vec<usize> = hold.numbers.iter().filter_map(begin).collect();
            // Those inside of others come first.
            for bracket in script.brackets() {
                let Some(element) = bracket.element_of(text, &places) else { continue };
                if bracket.is_list {
                    all.push((Written::Element { begin: element.start, end: element.end }, hold.clone()));
                    break;
                }
                let word = text.get(..bracket.open).unwrap_or_default();
                let dot = word.trim_end_matches(|c: char| c.is_alphanumeric() || c == '_');
                if dot.ends_with('.') && dot.len() < word.len() {
                    let begin = dot.trim_end_matches('.').trim_end().len();
                    all.push((Written::Call { begin, end: bracket.close + 1 }, hold.clone()));
                }
            }
        }
        all
    }
}

/// How a vertex is written, by the bytes of it.
#[derive(Clone, Copy, Debug)]
enum Written {
    Element { begin: usize, end: usize },
    Call { begin: usize, end: usize },
}

impl Written {
    fn bytes(self) -> (usize, usize) {
        match self {
            Self::Element { begin, end } | Self::Call { begin, end } => (begin, end),
        }
    }
}
