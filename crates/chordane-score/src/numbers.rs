//! The numbers that are written in a script, and the same script with other numbers in their place.

use std::collections::HashMap;
use std::ops::Range;

use rhai::{Position, Token};

/// A number as it is written in a script.
///
/// ```
/// use chordane_score::{Limits, Script};
/// let script = Script::read("page.chord", "sheet(90, 60).add(circle(pt(-4.50, 2), 12))", Limits::default())?;
/// let numbers = script.numbers();
/// assert_eq!((numbers[2].value, numbers[2].decimals, numbers[2].line), (-4.5, 2, 1));
/// assert_eq!(script.with_numbers(&[(2, 7.25), (4, 9.0)]), "sheet(90, 60).add(circle(pt(7.25, 2), 9))");
/// # Ok::<(), chordane_score::ScoreError>(())
/// ```
#[derive(Clone, Debug, PartialEq)]
#[non_exhaustive]
pub struct Number {
    /// Its bytes in the text, its sign with it.
    pub bytes: Range<usize>,
    /// Its line, counted from 1.
    pub line: usize,
    /// What it is.
    pub value: f64,
    /// How many decimals it is written with.
    pub decimals: usize,
    /// Whether the number is a count: a whole number that is a divisor or the end of a range, directly or through a name.
    pub counts: bool,
    /// Whether a minus may stand right before it: not where it follows a name or another value.
    sign: bool,
}

/// No number is written with more decimals than this.
pub(crate) const MAX_DECIMALS: usize = 9;

impl Number {
    /// The number as another value is written in its place: with so many decimals as it has, or more where they are asked for, and without zeros
    /// that only those would add.
    #[must_use]
    pub fn text(&self, value: f64, decimals: usize) -> String {
        self.text_with(value, decimals.max(self.decimals), self.decimals)
    }

    /// The number as another value is written in its place, rounded to so many decimals, without zeros at the end.
    pub(crate) fn rounded(&self, value: f64, decimals: usize) -> String {
        self.text_with(value, decimals, 0)
    }

    /// Writes a value with `decimals` decimals, without trailing zeros beyond the first `least` decimals.
    fn text_with(&self, value: f64, decimals: usize, least: usize) -> String {
        let mut text = format!("{value:.*}", decimals.min(MAX_DECIMALS));
        let own = text.find('.').map_or(0, |point| point + 1 + least);
        while text.len() > own && text.contains('.') && text.ends_with('0') {
            text.pop();
        }
        if text.ends_with('.') {
            text.pop();
        }
        if text.trim_start_matches('-').chars().all(|c| matches!(c, '0' | '.')) {
            text = text.trim_start_matches('-').to_owned();
        }
        // After a name or a value a minus would take away: in brackets it is the number's.
        if !self.sign && text.starts_with('-') { format!("({text})") } else { text }
    }
}

/// A number token where the engine read it.
#[derive(Clone, Copy, Debug)]
pub(crate) struct Spot {
    place: Position,
    value: f64,
    /// Whether an operator stands before it that a minus would read oddly after.
    bound: bool,
    counts: bool,
}

/// Gathers number tokens as they are read.
#[derive(Debug, Default)]
pub(crate) struct Spots {
    pub(crate) found: Vec<Spot>,
    bound: bool,
    /// Whether the next token is a divisor or the end of a range.
    counts: bool,
    /// The name on the left of a declaration, until its first number is read.
    naming: Option<String>,
    begins_name: bool,
    /// The index in `found` of the whole number that each name was declared with.
    named: HashMap<String, usize>,
}

impl Spots {
    pub(crate) fn read(&mut self, token: &Token, place: Position) {
        let value = match token {
            Token::IntegerConstant(whole) => Some(*whole as f64),
            Token::FloatConstant(number) => Some(*number.0),
            _ => None,
        };
        let whole = matches!(token, Token::IntegerConstant(_));
        if let Some(value) = value {
            if let Some(name) = self.naming.take().filter(|_| whole) {
                self.named.insert(name, self.found.len());
            }
            self.found.push(Spot { place, value, bound: self.bound, counts: whole && self.counts });
        }
        match token {
            Token::Identifier(name) if self.begins_name => self.naming = Some(name.to_string()),
            Token::Identifier(name) if self.counts => {
                let spot = self.named.get(name.as_str()).and_then(|at| self.found.get_mut(*at));
                spot.into_iter().for_each(|spot| spot.counts = true);
            }
            // A name that is computed does not stand for one number.
            Token::Equals | Token::LeftParen | Token::StringConstant(_) | Token::Comma => {}
            Token::Identifier(name) if **name == "knob" => {}
            _ => self.naming = None,
        }
        self.begins_name = matches!(token, Token::Let | Token::Const);
        self.counts =
            matches!(token, Token::Divide | Token::Modulo | Token::ExclusiveRange | Token::InclusiveRange);
        self.bound = matches!(token, Token::Minus | Token::UnaryMinus | Token::PowerOf);
    }
}

/// Where the engine's places are in a text.
#[derive(Debug)]
pub(crate) struct Places<'t> {
    text: &'t str,
    lines: Vec<usize>,
}

impl<'t> Places<'t> {
    pub(crate) fn of(text: &'t str) -> Self {
        let lines = std::iter::once(0).chain(text.match_indices('\n').map(|(at, _)| at + 1)).collect();
        Self { text, lines }
    }

    pub(crate) fn text(&self) -> &'t str {
        self.text
    }

    pub(crate) fn byte(&self, place: Position) -> Option<usize> {
        let begin = *self.lines.get(place.line()?.checked_sub(1)?)?;
        let line = self.text.get(begin..)?;
        let (at, _) = line.char_indices().nth(place.position()?.checked_sub(1)?)?;
        Some(begin + at)
    }
}

/// The numbers at such spots of a text, those that are written in decimals.
pub(crate) fn numbers(places: &Places<'_>, spots: &[Spot]) -> Vec<Number> {
    let source = places.text();
    let mut all: Vec<Number> = spots
        .iter()
        .filter_map(|spot| {
            let begin = places.byte(spot.place)?;
            // A minus right before it that takes nothing away is part of it.
            let signed = source.get(begin..)?.starts_with('-');
            let text = written(source.get(begin + usize::from(signed)..)?);
            let size: f64 = text.replace('_', "").parse().ok()?;
            let value = if signed { -size } else { size };
            // What was read differently is no number that could be written again.
            if value != spot.value {
                return None;
            }
            let decimals = text.split_once('.').map_or(0, |(_, decimals)| decimals.len());
            Some(Number {
                bytes: begin..begin + usize::from(signed) + text.len(),
                line: spot.place.line()?,
                value,
                decimals: if text.contains(['e', 'E']) { 0 } else { decimals },
                counts: spot.counts,
                sign: signed || !spot.bound,
            })
        })
        .collect();
    all.sort_by_key(|number| number.bytes.start);
    all
}

/// The number that a text begins with.
fn written(text: &str) -> &str {
    let bytes = text.as_bytes();
    let digits =
        |from: usize| bytes.iter().skip(from).take_while(|b| b.is_ascii_digit() || **b == b'_').count();
    let digit = |at: usize| bytes.get(at).is_some_and(u8::is_ascii_digit);
    let mut end = digits(0);
    if bytes.get(end) == Some(&b'.') {
        if digit(end + 1) {
            end += 1 + digits(end + 1);
        } else if bytes.get(end + 1).is_some_and(|b| !matches!(b, b'.' | b'_') && !b.is_ascii_alphabetic()) {
            // As in `pt(3., 4.)`: neither a range nor a word called on the number.
            end += 1;
        }
    }
    if matches!(bytes.get(end), Some(b'e' | b'E')) {
        let sign = usize::from(matches!(bytes.get(end + 1), Some(b'+' | b'-')));
        if digit(end + 1 + sign) {
            end += 1 + sign + digits(end + 1 + sign);
        }
    }
    text.get(..end).unwrap_or_default()
}
