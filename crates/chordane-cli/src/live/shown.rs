//! What all pages show, and what of it is news to a page.

use std::sync::Arc;

use super::message::{
    FileState, FindingTold, KnobTold, MarksTold, MistakeTold, Mode, RunTold, SeedTold, Told, ToldPicture,
    ToldText,
};
use super::text::change;

/// What all pages show.
#[derive(Clone, Debug, PartialEq)]
pub(crate) struct Shown {
    pub(crate) version: u64,
    pub(crate) text: Arc<str>,
    pub(crate) picture: Option<Picture>,
    pub(crate) run: Arc<RunTold>,
    pub(crate) mistake: Option<Arc<MistakeTold>>,
    pub(crate) knobs: Arc<Vec<KnobTold>>,
    pub(crate) seeds: Arc<Seeds>,
    pub(crate) time: Time,
    pub(crate) findings: Arc<Vec<FindingTold>>,
    /// Whether the findings are those of what is shown.
    pub(crate) complete: bool,
    pub(crate) bones: Arc<Vec<String>>,
    pub(crate) history: (Option<String>, Option<String>),
    pub(crate) file: (FileState, Arc<str>),
    /// When the file was last written, in milliseconds since 1970; 0 if never.
    pub(crate) saved: u64,
    pub(crate) marks: Arc<MarksTold>,
    /// For how many seconds a run goes on that is slow; 0 where none is.
    pub(crate) slow: f64,
    /// The running exports: their ids, the frames drawn, and the frames in all.
    pub(crate) exports: Vec<(String, u64, u64)>,
}

/// A picture and where it stands.
#[derive(Clone, Debug, PartialEq)]
pub(crate) struct Picture {
    pub(crate) svg: Arc<str>,
    pub(crate) corners: [[f64; 2]; 2],
    pub(crate) size: [f64; 2],
}

/// The seed, whether it is the score's own, and pictures of those before it.
#[derive(Clone, Debug, Default, PartialEq)]
pub(crate) struct Seeds {
    pub(crate) seed: u64,
    pub(crate) own: bool,
    pub(crate) strip: Vec<SeedTold>,
}

#[derive(Clone, Copy, Debug, PartialEq)]
pub(crate) struct Time {
    pub(crate) phase: f64,
    pub(crate) seconds: f64,
    /// How long the pointer was recorded.
    pub(crate) recorded: f64,
    pub(crate) mode: Mode,
}

impl Shown {
    /// A text of which nothing is known yet.
    pub(crate) fn of(version: u64, text: Arc<str>) -> Self {
        Self {
            version,
            text,
            picture: None,
            run: Arc::default(),
            mistake: None,
            knobs: Arc::default(),
            seeds: Arc::default(),
            time: Time { phase: 0.0, seconds: 4.0, recorded: 0.0, mode: Mode::Plain },
            findings: Arc::default(),
            complete: false,
            bones: Arc::default(),
            history: (None, None),
            file: (FileState::Saved, "".into()),
            saved: 0,
            marks: Arc::default(),
            slow: 0.0,
            exports: Vec::new(),
        }
    }

    /// What of this is news to a page that was shown something before, or nothing.
    pub(crate) fn news(&self, before: Option<&Self>) -> Vec<Told> {
        let mut told = Vec::new();
        let is_new = |same: fn(&Self, &Self) -> bool| before.is_none_or(|before| !same(self, before));
        if is_new(|a, b| a.version == b.version) {
            told.push(Told::Text(match before {
                Some(before) => {
                    let (head, tail, text) = change(&before.text, &self.text);
                    let to = super::text::units(&before.text) - tail;
                    ToldText { version: self.version, change: Some((head, to)), text }
                }
                None => ToldText { version: self.version, change: None, text: self.text.to_string() },
            }));
        }
        if let Some(picture) = &self.picture
            && is_new(|a, b| a.picture == b.picture)
        {
            let known = before.and_then(|before| before.picture.as_ref()).map_or("", |picture| &picture.svg);
            let (head, tail, svg) = change(known, &picture.svg);
            told.push(Told::Picture(ToldPicture {
                keep: (head, tail),
                svg,
                corners: picture.corners,
                size: picture.size,
            }));
        }
        if is_new(|a, b| a.run == b.run) {
            told.push(Told::Run((*self.run).clone()));
        }
        if is_new(|a, b| a.mistake == b.mistake) {
            told.push(Told::Mistake { mistake: self.mistake.as_deref().cloned() });
        }
        if is_new(|a, b| a.knobs == b.knobs) {
            told.push(Told::Knobs { knobs: (*self.knobs).clone() });
        }
        if is_new(|a, b| a.seeds == b.seeds) {
            let Seeds { seed, own, strip } = (*self.seeds).clone();
            told.push(Told::Seeds { seed, own, strip });
        }
        if is_new(|a, b| a.time == b.time) {
            let Time { phase, seconds, recorded, mode } = self.time;
            told.push(Told::Time { phase, seconds, recorded, mode });
        }
        if is_new(|a, b| a.findings == b.findings && a.complete == b.complete) {
            told.push(Told::Findings { findings: (*self.findings).clone(), complete: self.complete });
        }
        if is_new(|a, b| a.bones == b.bones) {
            told.push(Told::Bones { layers: (*self.bones).clone() });
        }
        if is_new(|a, b| a.history == b.history) {
            let (undo, redo) = self.history.clone();
            told.push(Told::History { undo, redo });
        }
        if is_new(|a, b| a.file == b.file && a.saved == b.saved) {
            let (state, why) = &self.file;
            told.push(Told::File { state: *state, told: why.to_string(), saved: self.saved });
        }
        if is_new(|a, b| a.marks == b.marks) && !(before.is_none() && self.marks.marks.is_empty()) {
            told.push(Told::Marks((*self.marks).clone()));
        }
        if before.map_or(0.0, |before| before.slow) != self.slow {
            told.push(Told::Slow { seconds: self.slow });
        }
        if before.map_or(0, |before| before.exports.len()) + self.exports.len() > 0
            && is_new(|a, b| a.exports == b.exports)
        {
            told.push(Told::Exports { exports: self.exports.clone() });
        }
        told
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn only_what_changed_is_told() {
        let shown = Shown::of(1, "sheet(9, 6)".into());
        assert_eq!(shown.news(Some(&shown)), []);
        assert!(shown.news(None).len() >= 9);
        let after = Shown { version: 2, text: "sheet(90, 6)".into(), ..shown.clone() };
        let text = ToldText { version: 2, change: Some((7, 7)), text: "0".to_owned() };
        assert_eq!(after.news(Some(&shown)), [Told::Text(text)]);
        let picture = |svg: &str| Picture { svg: svg.into(), corners: [[0.0; 2]; 2], size: [9.0, 6.0] };
        let first = Shown { picture: Some(picture("<svg>sail</svg>")), ..shown.clone() };
        let second = Shown { picture: Some(picture("<svg>snail</svg>")), ..shown.clone() };
        let Some(Told::Picture(told)) = second.news(Some(&first)).pop() else { panic!("no picture is told") };
        assert_eq!((told.keep, told.svg.as_str()), ((6, 9), "n"));
    }
}
