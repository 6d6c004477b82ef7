//! The brackets of a script and what stands between their commas, as places in its text.

use std::ops::Range;

use rhai::{Position, Token};

use crate::numbers::Places;

/// A pair of brackets: the bytes of both, and those of the commas between them that are in no other pair.
#[derive(Clone, Debug, PartialEq, Eq)]
pub(crate) struct Bracket {
    pub(crate) is_list: bool,
    pub(crate) open: usize,
    pub(crate) close: usize,
    commas: Vec<usize>,
}

impl Bracket {
    /// What stands between the commas, without the space around it.
    pub(crate) fn elements<'a>(&'a self, text: &'a str) -> impl Iterator<Item = Range<usize>> + 'a {
        let begins = std::iter::once(self.open).chain(self.commas.iter().copied());
        let ends = self.commas.iter().copied().chain(std::iter::once(self.close));
        begins.zip(ends).filter_map(|(begin, end)| {
            let inside = text.get(begin + 1..end)?;
            let front = inside.len() - inside.trim_start().len();
            let begin = begin + 1 + front;
            let length = inside.trim().len();
            (length > 0).then_some(begin..begin + length)
        })
    }

    /// The element that holds all of some places.
    pub(crate) fn element_of(&self, text: &str, places: &[usize]) -> Option<Range<usize>> {
        self.elements(text).find(|element| places.iter().all(|place| element.contains(place)))
    }
}

/// Gathers brackets as tokens are read.
#[derive(Debug, Default)]
pub(crate) struct Pairs {
    open: Vec<(bool, Position, Vec<Position>)>,
    found: Vec<(bool, [Position; 2], Vec<Position>)>,
}

impl Pairs {
    pub(crate) fn read(&mut self, token: &Token, place: Position) {
        match token {
            Token::LeftParen | Token::LeftBrace | Token::MapStart => {
                self.open.push((false, place, Vec::new()));
            }
            Token::LeftBracket => self.open.push((true, place, Vec::new())),
            Token::Comma => {
                if let Some((.., commas)) = self.open.last_mut() {
                    commas.push(place);
                }
            }
            Token::RightParen | Token::RightBracket | Token::RightBrace => {
                if let Some((is_list, open, commas)) = self.open.pop() {
                    self.found.push((is_list, [open, place], commas));
                }
            }
            _ => {}
        }
    }

    /// The brackets of a text; those inside of others before them.
    pub(crate) fn brackets(&self, places: &Places<'_>) -> Vec<Bracket> {
        let one = |(is_list, [open, close], commas): &(bool, [Position; 2], Vec<Position>)| {
            Some(Bracket {
                is_list: *is_list,
                open: places.byte(*open)?,
                close: places.byte(*close)?,
                commas: commas.iter().filter_map(|comma| places.byte(*comma)).collect(),
            })
        };
        self.found.iter().filter_map(one).collect()
    }
}

/// A bracket that is never closed: its line and column, counted from 1, the bracket that would close it, and the sign, with its line,
/// before which that belongs; `None` for the end of the text.
#[derive(Clone, Debug, PartialEq, Eq)]
pub(crate) struct Unclosed {
    pub(crate) at: (usize, usize),
    pub(crate) open: char,
    pub(crate) close: char,
    pub(crate) before: Option<(char, usize)>,
}

/// The first `(` or `[` that is still open at the end of its statement or of the bracket around it.
pub(crate) fn unclosed(text: &str) -> Option<Unclosed> {
    let mut open: Vec<(char, (usize, usize))> = Vec::new();
    let (mut line, mut column) = (1, 0);
    let mut skip_to = 0;
    for (at, c) in text.char_indices() {
        (line, column) = if c == '\n' { (line + 1, 0) } else { (line, column + 1) };
        if at < skip_to {
            continue;
        }
        match c {
            '"' | '`' | '\'' => skip_to = at + 1 + quoted(text.get(at + 1..).unwrap_or_default(), c),
            '/' => skip_to = at + commented(text.get(at..).unwrap_or_default()),
            '(' | '[' | '{' => open.push((c, (line, column))),
            ')' | ']' | '}' | ';' => {
                let own = match c {
                    ')' => '(',
                    ']' => '[',
                    _ => '{',
                };
                let last = open.last().copied();
                match last {
                    Some((bracket, place)) if bracket != own && bracket != '{' => {
                        return Some(told(bracket, place, Some((c, line))));
                    }
                    Some((bracket, _)) if bracket == own && c != ';' => drop(open.pop()),
                    _ => {}
                }
            }
            _ => {}
        }
    }
    let last = open.into_iter().rev().find(|(bracket, _)| *bracket != '{');
    last.map(|(bracket, place)| told(bracket, place, None))
}

fn told(open: char, at: (usize, usize), before: Option<(char, usize)>) -> Unclosed {
    Unclosed { at, open, close: if open == '(' { ')' } else { ']' }, before }
}

/// The number of bytes up to and including the closing quote.
fn quoted(rest: &str, quote: char) -> usize {
    let mut escaped = false;
    for (at, c) in rest.char_indices() {
        if c == quote && !escaped || c == '\n' && quote != '`' {
            return at + 1;
        }
        escaped = c == '\\' && !escaped && quote != '`';
    }
    rest.len()
}

/// The length in bytes of the comment at the beginning of a text; 1 if there is none.
fn commented(text: &str) -> usize {
    if text.starts_with("//") {
        return text.find('\n').unwrap_or(text.len());
    }
    if text.starts_with("/*") {
        return text.find("*/").map_or(text.len(), |end| end + 2);
    }
    1
}

#[cfg(test)]
mod tests {
    use super::{Unclosed, unclosed};

    #[test]
    fn what_is_not_closed_is_found_where_it_opens() {
        let at = |text: &str| unclosed(text).map(|Unclosed { at, open, before, .. }| (at, open, before));
        assert_eq!(at("page.add(circle(pt(0, 0), 3);\nlet a = 1;"), Some(((1, 9), '(', Some((';', 1)))));
        assert_eq!(at("let a = [1,\n  2;\n"), Some(((1, 9), '[', Some((';', 2)))));
        assert_eq!(at("fn dart(x) {\n  closed([[x, 1]\n}"), Some(((2, 10), '[', Some(('}', 3)))));
        assert_eq!(at("sheet(9, 9).add(\n  circle([1, 2], 3)\n"), Some(((1, 16), '(', None)));
        assert_eq!(at("pt(1, [2)"), Some(((1, 7), '[', Some((')', 1)))));
        // Brackets in texts and comments do not count, nor do statements of functions within brackets.
        for sound in
            ["print(\"(\"); // (", "/* ( */ [1]", "list.map(|v| { let a = v; a })", "`(\n(`;", "(", ") ]"]
        {
            let expected = (sound == "(").then_some(((1, 1), '(', None));
            assert_eq!(at(sound), expected, "{sound}");
        }
    }
}
