//! Selectors of style sheets: read, weighed, and matched with the elements of a document.

use std::collections::{HashMap, HashSet};

use cssparser::{Parser, Token, parse_nth};
use roxmltree::NodeId;

use super::tree::{Element, name};

/// So many simple selectors in a row at most; longer ones are not understood.
const MAX_COMPOUNDS: usize = 32;

/// A selector such as `g.sails > path:first-child`, from its right end on.
#[derive(Debug)]
pub(super) struct Selector {
    compounds: Vec<Compound>,
    /// How many ids, then classes, attributes and pseudo-classes, then names are in it: larger ones win.
    pub(super) specificity: [u32; 3],
}

/// What one element has to be.
#[derive(Debug, Default)]
struct Compound {
    /// Where the element stands, seen from the one on the right.
    place: Place,
    name: Option<String>,
    tests: Vec<Test>,
}

#[derive(Clone, Copy, Debug, Default, PartialEq)]
enum Place {
    #[default]
    Above,
    RightAbove,
    Before,
    RightBefore,
}

#[derive(Debug)]
enum Test {
    Id(String),
    Class(String),
    Attribute {
        name: String,
        how: Match,
        value: String,
    },
    Root,
    First,
    Last,
    /// The a and the b of `an+b`: every a-th element from the b-th on.
    Nth(i32, i32),
    /// What no element of a still picture is, such as `:hover`.
    Never,
}

#[derive(Clone, Copy, Debug)]
enum Match {
    Present,
    Equal,
    Word,
    Language,
    Prefix,
    Suffix,
    Part,
}

/// Pseudo-classes that tell of a person at the page.
const INTERACTIVE_PSEUDO_CLASSES: &[&str] =
    &["active", "focus", "focus-visible", "focus-within", "hover", "target", "visited"];

impl Selector {
    /// The selector that is all of the input; none where it is not one, or not one that is understood.
    pub(super) fn read(input: &mut Parser<'_>) -> Option<Self> {
        let mut compounds = vec![Compound::default()];
        let (mut specificity, mut place) = ([0_u32; 3], None);
        input.skip_whitespace();
        while let Ok(token) = input.next_including_whitespace() {
            let token = token.clone();
            let next = match token {
                Token::WhiteSpace(_) => Some(Place::Above),
                Token::Delim('>') => Some(Place::RightAbove),
                Token::Delim('~') => Some(Place::Before),
                Token::Delim('+') => Some(Place::RightBefore),
                _ => None,
            };
            if let Some(next) = next {
                // Space round another sign means nothing.
                place = match (place, next) {
                    (None | Some(Place::Above), next) => Some(next),
                    (before, Place::Above) => before,
                    _ => return None,
                };
                continue;
            }
            if let Some(place) = place.take() {
                // The sign tells where the element before it stands.
                let last = compounds.last_mut().filter(|last| !last.is_empty())?;
                last.place = place;
                compounds.push(Compound::default());
            }
            if compounds.len() > MAX_COMPOUNDS {
                return None;
            }
            let weight = compounds.last_mut()?.take(token, input)?;
            if let Some(count) = specificity.get_mut(weight) {
                *count += 1;
            }
        }
        let complete = place.is_none_or(|place| place == Place::Above);
        compounds.last().filter(|last| complete && !last.is_empty())?;
        compounds.reverse();
        Some(Self { compounds, specificity })
    }

    /// Whether an element is one of those.
    fn is_of(&self, element: Element<'_>, nth: &[usize]) -> bool {
        self.fits(0, element, nth, &mut HashSet::new())
    }

    /// Returns `true` if an element matches the selector from compound `part` on. `failed` memoises mismatches, because the number of ancestor combinations can be very large.
    fn fits(
        &self,
        part: usize,
        element: Element<'_>,
        nth: &[usize],
        failed: &mut HashSet<(usize, NodeId)>,
    ) -> bool {
        if !self.compounds.get(part).is_some_and(|compound| compound.is_of(element, nth)) {
            return false;
        }
        let Some(left) = self.compounds.get(part + 1) else { return true };
        if failed.contains(&(part, element.id())) {
            return false;
        }
        let step = match left.place {
            Place::Above | Place::RightAbove => Element::parent_element,
            Place::Before | Place::RightBefore => Element::prev_sibling_element,
        };
        let once = matches!(left.place, Place::RightAbove | Place::RightBefore);
        let mut next = step(&element);
        while let Some(other) = next {
            if self.fits(part + 1, other, nth, failed) {
                return true;
            }
            next = if once { None } else { step(&other) };
        }
        failed.insert((part, element.id()));
        false
    }
}

impl Compound {
    fn is_empty(&self) -> bool {
        self.name.is_none() && self.tests.is_empty()
    }

    /// Takes the next part over, and gives its place in the specificity.
    fn take(&mut self, token: Token<'_>, input: &mut Parser<'_>) -> Option<usize> {
        let (test, weight) = match token {
            Token::Ident(name) if self.is_empty() => {
                self.name = Some(name.to_string());
                return Some(2);
            }
            Token::Delim('*') if self.is_empty() => {
                self.name = Some("*".to_owned());
                return Some(usize::MAX);
            }
            Token::IDHash(id) => (Test::Id(id.to_string()), 0),
            Token::Delim('.') => match input.next_including_whitespace() {
                Ok(Token::Ident(class)) => (Test::Class(class.to_string()), 1),
                _ => return None,
            },
            Token::SquareBracketBlock => (input.parse_nested_block(attribute).ok()?, 1),
            Token::Colon => (pseudo_class(input)?, 1),
            _ => return None,
        };
        self.tests.push(test);
        Some(weight)
    }

    fn is_of(&self, element: Element<'_>, nth: &[usize]) -> bool {
        self.name.as_ref().is_none_or(|sought| sought == "*" || sought == name(element))
            && self.tests.iter().all(|test| test.is_of(element, nth))
    }
}

impl Test {
    fn is_of(&self, element: Element<'_>, nth: &[usize]) -> bool {
        let has = |name: &str, value: &str, how: Match| {
            let Some(given) = element.attribute(name) else { return false };
            let sought = !value.is_empty();
            match how {
                Match::Present => true,
                Match::Equal => given == value,
                Match::Word => given.split_ascii_whitespace().any(|word| word == value),
                Match::Language => {
                    given.strip_prefix(value).is_some_and(|rest| rest.is_empty() || rest.starts_with('-'))
                }
                Match::Prefix => sought && given.starts_with(value),
                Match::Suffix => sought && given.ends_with(value),
                Match::Part => sought && given.contains(value),
            }
        };
        match self {
            Self::Id(id) => has("id", id, Match::Equal),
            Self::Class(class) => has("class", class, Match::Word),
            Self::Attribute { name, how, value } => has(name, value, *how),
            Self::Root => element.parent_element().is_none(),
            Self::First => element.prev_sibling_element().is_none(),
            Self::Last => element.next_sibling_element().is_none(),
            Self::Nth(every, first) => {
                let nth = nth.get(element.id().get_usize()).copied().unwrap_or(0);
                let beyond = i64::try_from(nth).unwrap_or(i64::MAX) - i64::from(*first);
                match i64::from(*every) {
                    0 => beyond == 0,
                    every => beyond % every == 0 && beyond / every >= 0,
                }
            }
            Self::Never => false,
        }
    }
}

fn attribute<'i>(input: &mut Parser<'i>) -> Result<Test, cssparser::ParseError<()>> {
    let name = input.expect_ident_cloned()?.to_string();
    if input.is_exhausted() {
        return Ok(Test::Attribute { name, how: Match::Present, value: String::new() });
    }
    let how = match input.next()? {
        Token::Delim('=') => Match::Equal,
        Token::IncludeMatch => Match::Word,
        Token::DashMatch => Match::Language,
        Token::PrefixMatch => Match::Prefix,
        Token::SuffixMatch => Match::Suffix,
        Token::SubstringMatch => Match::Part,
        _ => return Err(cssparser::ParseError::unexpected_token()),
    };
    let value = input.expect_ident_or_string()?.to_string();
    Ok(Test::Attribute { name, how, value })
}

fn pseudo_class(input: &mut Parser<'_>) -> Option<Test> {
    match input.next_including_whitespace().ok()?.clone() {
        Token::Ident(name) => match &*name.to_ascii_lowercase() {
            "root" => Some(Test::Root),
            "first-child" => Some(Test::First),
            "last-child" => Some(Test::Last),
            name => INTERACTIVE_PSEUDO_CLASSES.contains(&name).then_some(Test::Never),
        },
        Token::Function(name) if name.eq_ignore_ascii_case("nth-child") => {
            let nth = input.parse_nested_block(|input| parse_nth(input).map_err(cssparser::ParseError::from));
            let nth: Result<_, cssparser::ParseError<()>> = nth;
            nth.ok().map(|(every, first)| Test::Nth(every, first))
        }
        _ => None,
    }
}

/// Selectors by what stands at their right end, so that an element is tried with few of them.
#[derive(Debug, Default)]
pub(super) struct Selectors {
    /// Each with the number of the rule that it is of.
    all: Vec<(Selector, usize)>,
    by_id: HashMap<String, Vec<usize>>,
    by_class: HashMap<String, Vec<usize>>,
    by_name: HashMap<String, Vec<usize>>,
    others: Vec<usize>,
}

impl Selectors {
    pub(super) fn len(&self) -> usize {
        self.all.len()
    }

    pub(super) fn push(&mut self, selector: Selector, rule: usize) {
        let last = selector.compounds.first();
        let tests = || last.into_iter().flat_map(|last| &last.tests);
        let id = tests().find_map(|test| if let Test::Id(id) = test { Some(id) } else { None });
        let class = tests().find_map(|test| if let Test::Class(class) = test { Some(class) } else { None });
        let name = last.and_then(|last| last.name.as_ref()).filter(|name| *name != "*");
        let list = match (id, class, name) {
            (Some(id), ..) => self.by_id.entry(id.clone()).or_default(),
            (_, Some(class), _) => self.by_class.entry(class.clone()).or_default(),
            (.., Some(name)) => self.by_name.entry(name.clone()).or_default(),
            _ => &mut self.others,
        };
        list.push(self.all.len());
        self.all.push((selector, rule));
    }

    /// The rules that an element is meant by, each with the specificity of its selector. `nth` are the places of all elements so far among those beside
    /// them.
    pub(super) fn of<'s>(
        &'s self,
        element: Element<'s>,
        nth: &'s [usize],
    ) -> impl Iterator<Item = ([u32; 3], usize)> + 's {
        let classes = element.attribute("class").unwrap_or_default().split_ascii_whitespace();
        let lists = classes
            .map(|class| self.by_class.get(class))
            .chain([element.attribute("id").and_then(|id| self.by_id.get(id))])
            .chain([self.by_name.get(name(element)), Some(&self.others)]);
        let some = lists.flatten().flatten().filter_map(|place| self.all.get(*place));
        some.filter(move |(selector, _)| element.is_element() && selector.is_of(element, nth))
            .map(|(selector, rule)| (selector.specificity, *rule))
    }
}
