//! Style sheets in a document, and `style` attributes, by the rules of the recommendation for their syntax.

use cssparser::{
    AtRuleParser, CowRcStr, DeclarationParser, ParseError, Parser, ParserState, QualifiedRuleParser,
    RuleBodyItemParser, RuleBodyParser, StyleSheetParser, Token, parse_important,
};

use super::error::shortened;
use super::selectors::{Selector, Selectors};
use super::tree::{is_svg, name, start_of, text_in};
use crate::ground::exhausted;

/// So many selectors at most in all style sheets of a document.
const MAX_SELECTORS: usize = 20_000;

/// A property and what it is to be.
#[derive(Debug)]
pub(super) struct Declaration {
    pub(super) name: String,
    pub(super) value: String,
    pub(super) important: bool,
}

/// Something that was not understood, so many lines below a place.
#[derive(Debug)]
pub(super) struct Told {
    pub(super) at: usize,
    pub(super) lines: usize,
    pub(super) what: String,
}

/// The rules of all style sheets.
#[derive(Debug, Default)]
pub(super) struct Rules {
    pub(super) selectors: Selectors,
    /// The declarations of each rule.
    pub(super) rules: Vec<Vec<Declaration>>,
}

impl Rules {
    /// Reads all style sheets of a document; what is not understood of them is told.
    pub(super) fn of(tree: &roxmltree::Document<'_>, told: &mut Vec<Told>) -> Self {
        let mut rules = Self::default();
        for sheet in tree.descendants().filter(|node| is_svg(*node) && name(*node) == "style") {
            if !["", "text/css"].contains(&sheet.attribute("type").unwrap_or_default().trim()) {
                continue;
            }
            let at = sheet.first_child().map_or(start_of(sheet), start_of);
            match sheet.attribute("media").map_or(Some(true), is_shown) {
                Some(true) => {
                    let mut reader = SheetReader { rules: &mut rules, told, at };
                    reader.all(&mut Parser::new(&text_in(sheet)));
                }
                Some(false) => {}
                None => {
                    let what = "a style sheet whose `media` has conditions is left out".to_owned();
                    told.push(Told { at: start_of(sheet), lines: 0, what });
                }
            }
        }
        rules
    }
}

/// The declarations of a `style` attribute; what is none is left out without a word, as browsers do.
pub(super) fn declarations(text: &str) -> Vec<Declaration> {
    let mut input = Parser::new(text);
    RuleBodyParser::new(&mut input, &mut Body).filter_map(Result::ok).collect()
}

struct SheetReader<'r> {
    rules: &'r mut Rules,
    told: &'r mut Vec<Told>,
    at: usize,
}

impl SheetReader<'_> {
    fn tell(&mut self, line: u32, what: String) {
        self.told.push(Told { at: self.at, lines: line as usize, what });
    }

    fn all(&mut self, input: &mut Parser<'_>) {
        let mut failed = Vec::new();
        let full = {
            let mut items = StyleSheetParser::new(input, self);
            loop {
                if exhausted(20) || items.parser.rules.selectors.len() > MAX_SELECTORS {
                    break true;
                }
                match items.next() {
                    Some(Err((_, text, at))) => failed.push((at.line, shortened(text))),
                    Some(Ok(())) => {}
                    None => break false,
                }
            }
        };
        for (line, text) in failed {
            self.tell(line, format!("\"{text}\" in a style sheet is not understood: left out"));
        }
        if full {
            self.tell(
                0,
                format!("style sheets with more than {MAX_SELECTORS} selectors: the rest is left out"),
            );
        }
    }
}

/// What a rule with an `@` is.
enum At {
    /// What is in it holds here, or does not.
    Medium(bool),
    /// It changes nothing of what is drawn.
    Nothing,
    /// It is not understood.
    Told(String),
}

impl<'i> AtRuleParser<'i> for SheetReader<'_> {
    type Prelude = At;
    type AtRule = ();
    type Error = ();

    fn parse_prelude(&mut self, name: CowRcStr<'i>, input: &mut Parser<'i>) -> Result<At, ParseError<()>> {
        let start = input.position();
        while input.next().is_ok() {}
        let text = input.slice_from(start).trim();
        let not = || {
            At::Told(format!("\"@{name} {}\" in a style sheet is not understood: left out", shortened(text)))
        };
        Ok(match &*name.to_ascii_lowercase() {
            "media" => is_shown(text).map_or_else(not, At::Medium),
            "charset" | "namespace" | "font-face" => At::Nothing,
            "import" => At::Told(format!("the style sheet {} is not fetched: left out", shortened(text))),
            _ => not(),
        })
    }

    fn rule_without_block(&mut self, prelude: At, start: &ParserState) -> Result<(), ()> {
        if let At::Told(what) = prelude {
            self.tell(start.source_location().line, what);
        }
        Ok(())
    }

    fn parse_block(
        &mut self,
        prelude: At,
        start: &ParserState,
        input: &mut Parser<'i>,
    ) -> Result<(), ParseError<()>> {
        match prelude {
            At::Medium(true) => self.all(input),
            At::Told(what) => self.tell(start.source_location().line, what),
            At::Medium(false) | At::Nothing => {}
        }
        while input.next().is_ok() {}
        Ok(())
    }
}

impl<'i> QualifiedRuleParser<'i> for SheetReader<'_> {
    /// What is understood, and the texts of what is not.
    type Prelude = (Vec<Selector>, Vec<String>);
    type QualifiedRule = ();
    type Error = ();

    fn parse_prelude(&mut self, input: &mut Parser<'i>) -> Result<Self::Prelude, ParseError<()>> {
        let mut unknown = Vec::new();
        let read = input.parse_comma_separated(|input| {
            let start = input.position();
            let selector = Selector::read(input);
            while input.next().is_ok() {}
            if selector.is_none() {
                unknown.push(shortened(input.slice_from(start)));
            }
            Ok::<_, ParseError<()>>(selector)
        })?;
        Ok((read.into_iter().flatten().collect(), unknown))
    }

    fn parse_block(
        &mut self,
        (selectors, unknown): Self::Prelude,
        start: &ParserState,
        input: &mut Parser<'i>,
    ) -> Result<(), ParseError<()>> {
        for text in unknown {
            let what = format!("the selector \"{text}\" is not understood: left out");
            self.tell(start.source_location().line, what);
        }
        let rule = self.rules.rules.len();
        let mut declarations = Vec::new();
        let mut failed = Vec::new();
        for item in RuleBodyParser::new(input, &mut Body) {
            match item {
                Ok(declaration) => declarations.push(declaration),
                Err((_, text, at)) => failed.push((at.line, shortened(text))),
            }
        }
        for (line, text) in failed {
            self.tell(line, format!("\"{text}\" in a style sheet is not understood: left out"));
        }
        self.rules.rules.push(declarations);
        for selector in selectors {
            self.rules.selectors.push(selector, rule);
        }
        Ok(())
    }
}

/// Declarations between braces, or in an attribute.
struct Body;

impl<'i> DeclarationParser<'i> for Body {
    type Declaration = Declaration;
    type Error = ();

    fn parse_value(
        &mut self,
        name: CowRcStr<'i>,
        input: &mut Parser<'i>,
        _: &ParserState,
    ) -> Result<Declaration, ParseError<()>> {
        let (mut value, mut important) = (String::new(), false);
        input.skip_whitespace();
        let mut from = input.position();
        loop {
            if input.try_parse(parse_important).is_ok() {
                important = true;
                input.expect_exhausted()?;
                break;
            }
            let before = input.position();
            match input.next_including_whitespace_and_comments() {
                Ok(Token::Comment(_)) => {
                    value.push_str(input.slice(from..before));
                    value.push(' ');
                    from = input.position();
                }
                Ok(
                    Token::Function(_)
                    | Token::ParenthesisBlock
                    | Token::SquareBracketBlock
                    | Token::CurlyBracketBlock,
                ) => {
                    input.parse_nested_block(|input| {
                        while input.next().is_ok() {}
                        Ok::<_, ParseError<()>>(())
                    })?;
                    value.push_str(input.slice_from(from));
                    from = input.position();
                }
                Ok(_) => {
                    value.push_str(input.slice_from(from));
                    from = input.position();
                }
                Err(_) => break,
            }
        }
        let name = if name.starts_with("--") { name.to_string() } else { name.to_ascii_lowercase() };
        Ok(Declaration { name, value: value.trim().to_owned(), important })
    }
}

impl<'i> AtRuleParser<'i> for Body {
    type Prelude = ();
    type AtRule = Declaration;
    type Error = ();
}

impl<'i> QualifiedRuleParser<'i> for Body {
    type Prelude = ();
    type QualifiedRule = Declaration;
    type Error = ();
}

impl RuleBodyItemParser<'_, Declaration, ()> for Body {
    fn parse_declarations(&self) -> bool {
        true
    }

    fn parse_qualified(&self) -> bool {
        false
    }
}

/// Whether what is meant for some media is meant for a picture on a screen; none where that depends on more.
fn is_shown(media: &str) -> Option<bool> {
    let one = |query: &str| {
        let words: Vec<String> = query.split_ascii_whitespace().map(str::to_ascii_lowercase).collect();
        let words: Vec<&str> = words.iter().map(String::as_str).collect();
        match words.as_slice() {
            [] | ["all" | "screen"] | ["only", "all" | "screen"] | ["not", "print" | "speech"] => Some(true),
            ["print" | "speech"] | ["only", "print" | "speech"] | ["not", "all" | "screen"] => Some(false),
            _ => None,
        }
    };
    let all: Vec<Option<bool>> = media.split(',').map(one).collect();
    if all.contains(&Some(true)) { Some(true) } else { all.into_iter().try_fold(false, |_, shown| shown) }
}
