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
