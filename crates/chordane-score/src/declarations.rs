//! Where a script declares its knobs and its seed, and the same script with other ones written there.

use std::ops::Range;

use rhai::{Position, Token};

use crate::brackets::{Bracket, Pairs};
use crate::knob::{on_or_off, place};
use crate::numbers::{Number, Places, Spots, numbers};
use crate::{Knob, KnobKind};

/// A call of a word that declares something: `knob("sag", 0.3, 0, 1)` or `seed(7)`.
#[derive(Clone, Debug, PartialEq, Eq)]
pub(crate) struct Declaration {
    /// The knob's name; `None` of the seed.
    pub(crate) name: Option<String>,
    /// The bytes of what it starts with.
    pub(crate) start: Range<usize>,
    /// The bytes of the whole call.
    pub(crate) call: Range<usize>,
}

/// What is gathered while a text is read.
#[derive(Debug, Default)]
pub(crate) struct Gathered {
    spots: Spots,
    calls: Calls,
    pairs: Pairs,
}

impl Gathered {
    pub(crate) fn read(&mut self, token: &Token, place: Position) {
        self.spots.read(token, place);
        self.calls.read(token, place);
        self.pairs.read(token, place);
    }

    /// What stands where in the text.
    pub(crate) fn of(&self, text: &str) -> Known {
        let places = Places::of(text);
        Known {
            numbers: numbers(&places, &self.spots.found),
            declared: self.calls.declarations(&places),
            brackets: self.pairs.brackets(&places),
        }
    }
}

/// What stands where in a text: its numbers, its declarations and its brackets, each in order.
#[derive(Clone, Debug, Default)]
pub(crate) struct Known {
    pub(crate) numbers: Vec<Number>,
    pub(crate) declared: Vec<Declaration>,
    pub(crate) brackets: Vec<Bracket>,
}

/// Gathers declarations as tokens are read.
#[derive(Debug, Default)]
struct Calls {
    found: Vec<Found>,
    /// Those that are not at their end yet, the innermost last.
    open: Vec<Open>,
    /// How many brackets are open.
    depth: usize,
    /// A word that declares something and its place, right before its bracket.
    word: Option<(bool, Position)>,
}

#[derive(Debug)]
struct Open {
    begin: Position,
    name: Option<String>,
    is_knob: bool,
    depth: usize,
    argument: usize,
    start: Option<Position>,
    end: Option<Position>,
}

/// A declaration by the places of its tokens: the call from its word to its bracket, the start up to the comma or bracket after it.
#[derive(Debug)]
struct Found {
    name: Option<String>,
    start: [Position; 2],
    call: [Position; 2],
}

impl Calls {
    fn read(&mut self, token: &Token, place: Position) {
        let (depth, word) = (self.depth, self.word.take());
        if let Some(open) = self.open.last_mut().filter(|open| open.depth == depth) {
            match token {
                Token::Comma => open.next(place),
                Token::RightParen => {
                    open.end.get_or_insert(place);
                    if let Some(open) = self.open.pop() {
                        self.found.extend(open.found(place));
                    }
                }
                _ => open.begin(token, place),
            }
        }
        match token {
            Token::Identifier(name) => {
                let is_knob = name.as_str() == "knob";
                self.word = (is_knob || name.as_str() == "seed").then_some((is_knob, place));
            }
            Token::LeftParen | Token::LeftBracket | Token::LeftBrace | Token::MapStart => self.depth += 1,
            Token::RightParen | Token::RightBracket | Token::RightBrace => {
                self.depth = self.depth.saturating_sub(1);
            }
            _ => {}
        }
        if let (Token::LeftParen, Some((is_knob, begin))) = (token, word) {
            let depth = self.depth;
            self.open.push(Open { begin, name: None, is_knob, depth, argument: 0, start: None, end: None });
        }
    }

    /// The declarations of a text, in order.
    fn declarations(&self, places: &Places<'_>) -> Vec<Declaration> {
        let bytes = |[from, to]: [Position; 2]| Some(places.byte(from)?..places.byte(to)?);
        let one = |found: &Found| {
            let (start, call) = (bytes(found.start)?, bytes(found.call)?);
            let text = places.text().get(start.clone())?;
            let start = start.start..start.start + text.trim_end().len();
            Some(Declaration { name: found.name.clone(), start, call: call.start..call.end + 1 })
        };
        self.found.iter().filter_map(one).collect()
    }
}

impl Open {
    /// The argument in which the start stands: after the name of a knob.
    fn of_start(&self) -> usize {
        usize::from(self.is_knob)
    }

    fn begin(&mut self, token: &Token, place: Position) {
        if self.is_knob && self.argument == 0 {
            if let Token::StringConstant(name) = token {
                self.name = Some(name.to_string());
            }
        } else if self.argument == self.of_start() {
            self.start.get_or_insert(place);
        }
    }

    fn next(&mut self, place: Position) {
        if self.argument == self.of_start() {
            self.end.get_or_insert(place);
        }
        self.argument += 1;
    }

    fn found(self, end: Position) -> Option<Found> {
        let named = !self.is_knob || self.name.is_some();
        let start = [self.start?, self.end?];
        named.then_some(Found { name: self.name, start, call: [self.begin, end] })
    }
}

/// A text as a score writes it.
fn quoted(text: &str) -> String {
    let mut out = String::from("\"");
    for c in text.chars() {
        match c {
            '\\' | '"' => out.extend(['\\', c]),
            '\n' => out.push_str("\\n"),
            '\r' => out.push_str("\\r"),
            '\t' => out.push_str("\\t"),
            c => out.push(c),
        }
    }
    out + "\""
}

/// What a knob is set to, as a score writes it in place of what it started with.
pub(crate) fn written(knob: &Knob, before: &str, numbers: &[Number], at: &Range<usize>) -> Option<String> {
    let value = knob.set.as_deref()?;
    Some(match &knob.kind {
        KnobKind::Number { .. } => {
            let value: f64 = value.parse().ok()?;
            let own = numbers.iter().find(|number| number.bytes == *at);
            own.map_or_else(|| value.to_string(), |number| number.text(value, crate::numbers::MAX_DECIMALS))
        }
        KnobKind::Switch { .. } => on_or_off(value)?.to_string(),
        KnobKind::Choice { .. } | KnobKind::Colour { .. } => quoted(value),
        KnobKind::Point { .. } => {
            let at = place(value)?;
            if before.starts_with('[') {
                format!("[{}, {}]", at.x, at.y)
            } else {
                format!("pt({}, {})", at.x, at.y)
            }
        }
    })
}
