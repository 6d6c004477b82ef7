//! Findings mended by a change of the text, where one is known to: each is tried, and taken only if the finding is gone and nothing else is found.

use std::time::Duration;

use chordane::check::{Code, Finding, Report};

use crate::brackets::Bracket;
use crate::clock::Instant;
use crate::edits::edited;
use crate::{Runner, Script, Settings, UNUSED_KNOB};

/// The script's text with a finding mended, if a change of a word or a number does it. Whether it does is tried: the finding is gone then, there is no
/// new one, and as many items are drawn as before. `None` where no such change is known, or where it is not found within a time. Cost: a run and a check for each change that is tried.
///
/// ```
/// use std::time::Duration;
/// use chordane_score::{Limits, Score, Script, Settings, mended};
/// let text = "sheet(99, 60).add(start([9, 9]).line([90, 9]).line([50, 50]).line([9, 9]).open().stroke(\"teal\", 3))";
/// let script = Script::read("sail.chord", text, Limits::default())?;
/// let found = script.sheet()?.check().unwrap().findings;
/// assert_eq!(found[0].code.name(), "open-outline");
/// let after = mended(&script, &Settings::new(), &found[0], Duration::from_secs(9)).unwrap();
/// assert_eq!(after, text.replace(".open()", ".close()"));
/// # Ok::<(), chordane_score::ScoreError>(())
/// ```
#[must_use]
pub fn mended(script: &Script, settings: &Settings, finding: &Finding, within: Duration) -> Option<String> {
    let begin = Instant::now();
    let look = Look { script, settings, knobs: finding.code == UNUSED_KNOB };
    let before = look.at(script.source())?;
    let mut all = changes(script, finding);
    // The nearest to the finding's line first.
    let text = script.source();
    let line = |byte: usize| text.get(..byte).map_or(0, |before| before.matches('\n').count() + 1);
    all.sort_by_key(|change| finding.line.map_or(0, |own| own.abs_diff(line(change.begin))));
    let mut tried = all.iter().map(|change| change.put(text));
    tried.find(|after| {
        begin.elapsed() < within && look.at(after).is_some_and(|now| now.mends(&before, finding))
    })
}

/// A stroke that can be seen on most grounds.
const STROKE: &str = ".stroke(\"#20303c\", 3)";

/// Other text in place of some bytes.
#[derive(Debug)]
struct Change {
    begin: usize,
    end: usize,
    by: String,
}

impl Change {
    fn put(&self, text: &str) -> String {
        edited(text, [(self.begin..self.end, self.by.clone())])
    }
}

struct Look<'a> {
    script: &'a Script,
    settings: &'a Settings,
    knobs: bool,
}

/// What is found of a text, and how many items it draws.
struct Seen {
    findings: Vec<Finding>,
    items: usize,
}

impl Look<'_> {
    fn at(&self, text: &str) -> Option<Seen> {
        let script = self.script.reread(text).ok()?;
        let runner = Runner::new(script);
        let run = runner.run(self.settings);
        let sheet = run.lenient_sheet().ok()?;
        let items = sheet.items().len();
        let mut findings =
            self.script.limits().within(|| sheet.check()).map(|report: Report| report.findings).ok()?;
        if self.knobs {
            findings.extend(runner.knob_findings(&run));
        }
        Some(Seen { findings, items })
    }
}

impl Seen {
    /// Whether it is without a finding that was there, and without any that was not.
    fn mends(&self, before: &Self, finding: &Finding) -> bool {
        let same = |a: &Finding, b: &Finding| a.code == b.code && a.path == b.path && a.contour == b.contour;
        let is_gone = |one: &Finding| one.code == finding.code && one.message == finding.message;
        let count = |all: &[Finding], one: &Finding| all.iter().filter(|other| same(other, one)).count();
        let none_new =
            self.findings.iter().all(|one| count(&self.findings, one) <= count(&before.findings, one));
        none_new
            && self.items == before.items
            && !self.findings.iter().any(|one| is_gone(one) && same(one, finding))
            && self.findings.len() < before.findings.len()
    }
}

/// Changes that may mend a finding.
fn changes(script: &Script, finding: &Finding) -> Vec<Change> {
    let text = script.source();
    let words = |from: &str, to: &str| -> Vec<Change> {
        let is_word = |at: &usize| {
            let before = text.get(..*at).and_then(|before| before.chars().next_back());
            from.starts_with('.') || before.is_none_or(|before| !before.is_alphanumeric() && before != '_')
        };
        let places = text.match_indices(from).map(|(at, _)| at).filter(is_word);
        places.map(|begin| Change { begin, end: begin + from.len(), by: to.to_owned() }).collect()
    };
    match finding.code {
        Code::OpenOutline => {
            let mut all = words(".open()", ".close()");
            all.extend(words("open(", "closed("));
            // Where the first vertex is listed again, closing alone is not enough.
            all.extend(last_vertex_and(text, script, ".open()", ".close()"));
            all
        }
        Code::DoubledEnd => {
            let mut all = last_vertex_and(text, script, ".close()", ".close()");
            let lists = script.brackets().iter().filter(|bracket| bracket.is_list);
            all.extend(lists.filter_map(|list| {
                let mut elements: Vec<_> = list.elements(text).collect();
                let (last, before) = (elements.pop()?, elements.pop()?);
                Some(Change { begin: before.end, end: last.end, by: String::new() })
            }));
            all
        }
        Code::AngleUnit => {
            let mut all = words("rad(", "deg(");
            all.extend(words("deg(", "rad("));
            all
        }
        Code::UnevenRing => {
            let even = |value: f64| (360.0 / value.abs()).round();
            let of_turn =
                script.numbers().iter().filter(|number| (2.0..=180.0).contains(&number.value.abs()));
            of_turn
                .map(|number| Change {
                    begin: number.bytes.start,
                    end: number.bytes.end,
                    by: format!("360 / {}", even(number.value)),
                })
                .collect()
        }
        Code::ClosedHole => words(".fill(", ".turn_holes().fill("),
        Code::Unpainted if finding.mend.contains("width") => {
            let is_stroke = |before: &str| before.ends_with(".stroke") || before.ends_with(".stroke_width");
            let strokes = script
                .brackets()
                .iter()
                .filter(|bracket| !bracket.is_list && text.get(..bracket.open).is_some_and(is_stroke));
            // The width is the last argument of a stroke.
            let width = strokes.filter_map(|stroke| {
                let last = stroke.elements(text).last()?;
                script.numbers().iter().find(|number| number.bytes == last && number.value == 0.0)
            });
            width
                .map(|number| Change { begin: number.bytes.start, end: number.bytes.end, by: "3".to_owned() })
                .collect()
        }
        Code::Unpainted if finding.mend.contains("instead of a fill") => {
            let fills = script.brackets().iter().filter(|bracket| {
                !bracket.is_list && text.get(..bracket.open).is_some_and(|before| before.ends_with(".fill"))
            });
            let stroke = |bracket: &Bracket| Change {
                begin: bracket.open - ".fill".len(),
                end: bracket.close + 1,
                by: STROKE.to_owned(),
            };
            fills.map(stroke).collect()
        }
        Code::Unpainted => {
            let added = script.brackets().iter().filter(|bracket| {
                !bracket.is_list && text.get(..bracket.open).is_some_and(|before| before.ends_with(".add"))
            });
            let give = |style: &'static str| {
                added.clone().map(move |bracket| Change {
                    begin: bracket.close,
                    end: bracket.close,
                    by: style.to_owned(),
                })
            };
            give(".fill(\"#c8553d\")").chain(give(STROKE)).collect()
        }
        UNUSED_KNOB => {
            let without = |name: &str| Change { begin: 0, end: text.len(), by: script.without_knob(name) };
            let named = script.knob_names().filter(|name| finding.message.contains(&format!("\"{name}\"")));
            named.map(without).collect()
        }
        _ => Vec::new(),
    }
}

/// The last call of a pen taken out before its end, and the end written otherwise.
fn last_vertex_and(text: &str, script: &Script, end: &str, by: &str) -> Vec<Change> {
    let places = text.match_indices(end);
    places
        .filter_map(|(at, _)| {
            let before = text.get(..at)?.trim_end();
            let last = script.brackets().iter().find(|bracket| bracket.close + 1 == before.len())?;
            let word = text.get(..last.open)?;
            let begin = word.strip_suffix(".line")?.trim_end().len();
            Some(Change { begin, end: at + end.len(), by: by.to_owned() })
        })
        .collect()
}
