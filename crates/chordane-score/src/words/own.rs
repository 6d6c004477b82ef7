//! Words that a program adds.

use std::sync::{Arc, OnceLock};

use rhai::{Engine, Module, Shared};

use super::entry::{Carries, Word, word};
use crate::ScoreError;

/// Words that a program adds to those that its scores can use.
///
/// A word is a closure. The closure's types define its arguments and its result: numbers (`f64`, `usize`), [`Point`](chordane::number::Point),
/// [`Angle`](chordane::number::Angle), `String`, `bool`, [`Path`](chordane::path::Path), [`Item`](chordane::sheet::Item),
/// [`Group`](chordane::sheet::Group), [`Node`](chordane::sheet::Node) and the other values of scores, or `Vec`s of these. A colour argument is a
/// [`GivenColour`](chordane::sheet::GivenColour), any other paint a [`GivenPaint`](chordane::sheet::GivenPaint). A word has at most six arguments, and may return a
/// `Result` with a [`ScoreError`] or a [`Fault`](chordane::Fault). A call with arguments of other types is an error with the expected types, as for
/// every word.
///
/// ```
/// use chordane::prelude::*;
/// use chordane_score::{Limits, Runner, Settings, Words};
///
/// let words = Words::new().add(
///     "tassel(at, threads)",
///     "Threads that hang from a point.",
///     r#"tassel([0, 0], 5).stroke("teal", 1)"#,
///     |at: Point, threads: usize| {
///         let thread = |i: usize| start(at).line(at + Point::new(i as f64 - 2.0, 12.0)).open();
///         (0..threads).map(thread).fold(Path::empty(), |all, one| all.and(&one))
///     },
/// );
/// let runner = Runner::read_with("sail.chord", "sheet(40, 40).add(tassel([20, 9], 5).stroke(\"teal\", 1))", Limits::default(), &words)?;
/// assert_eq!(runner.run(&Settings::new()).into_sheet()?.items().len(), 1);
///
/// let wrong = Runner::read_with("sail.chord", "tasel([20, 9], 5)", Limits::default(), &words)?.run(&Settings::new());
/// assert_eq!(wrong.sheet().unwrap_err().advice(), Some("did you mean `tassel`?"));
/// # Ok::<(), chordane_score::ScoreError>(())
/// ```
#[derive(Clone, Debug, Default)]
pub struct Words {
    own: Vec<Arc<Word>>,
    problem: Option<String>,
    module: OnceLock<Shared<Module>>,
}

impl Words {
    /// Creates a registry without words.
    #[must_use]
    pub fn new() -> Self {
        Self::default()
    }

    /// Adds a word. `form` is its signature with the names of its arguments, such as `"tassel(at, threads)"`. With a leading dot it is a method of
    /// its first argument, such as `".hemmed(width)"`. `about` describes it in a sentence, and `example` is a call of it.
    ///
    /// A name that is taken or is not an identifier, and a form whose arguments do not match the closure's, are errors that reading a script with
    /// these words reports; see [`Words::sound`].
    #[must_use]
    pub fn add<A, F>(
        mut self,
        form: &'static str,
        about: &'static str,
        example: &'static str,
        carry: F,
    ) -> Self
    where
        F: Carries<A> + Send + Sync + 'static,
    {
        let added = word(form, about, example, carry);
        let problem = self.problem_of(form, &added);
        self.problem = self.problem.or(problem);
        self.own.push(Arc::new(added));
        self.module = OnceLock::new();
        self
    }

    fn problem_of(&self, form: &str, added: &Word) -> Option<String> {
        let name = added.name;
        let taken = super::named(name).next().is_some();
        let again = self.own.iter().any(|own| own.name == name && own.arity() == added.arity());
        if taken || again {
            return Some(format!("there is already a word `{name}`; choose another name"));
        }
        let plain = name.chars().all(|c| c.is_ascii_alphanumeric() || c == '_')
            && name.starts_with(|c: char| c.is_ascii_alphabetic());
        // Keywords of the language do not parse as calls.
        if !plain || Engine::new_raw().compile(format!("{name}()")).is_err() {
            return Some(format!("`{name}` is not a valid name for a word; use letters, digits and _"));
        }
        let named = form.split_once('(').map_or("", |(_, rest)| rest).trim_end_matches(')');
        let named = named.split(',').filter(|name| !name.trim().is_empty()).count();
        let takes = added.arity() - usize::from(!added.on.is_empty());
        (named != takes).then(|| format!("`{form}` names {named} arguments, but its closure takes {takes}"))
    }

    /// Returns these words, or an error if one of them cannot be added.
    ///
    /// # Errors
    ///
    /// The problem with the first such word.
    pub fn sound(&self) -> Result<&Self, ScoreError> {
        self.problem.as_ref().map_or(Ok(self), |problem| Err(ScoreError::new(problem.clone())))
    }

    /// Returns the added words.
    pub fn own(&self) -> impl Iterator<Item = &Word> {
        self.own.iter().map(|word| &**word)
    }

    /// Returns all words: the built-in ones, then the added ones.
    pub fn all(&self) -> impl Iterator<Item = &Word> {
        super::all().map(|word| -> &Word { word }).chain(self.own())
    }

    /// Returns all words with a name.
    pub fn named(&self, name: &str) -> impl Iterator<Item = &Word> {
        self.all().filter(move |word| word.name == name)
    }

    /// Returns the program's own words as a module for the engine, made at first use; `None` if there are none.
    pub(crate) fn module(&self, make: impl FnOnce(&[Arc<Word>]) -> Module) -> Option<&Shared<Module>> {
        (!self.own.is_empty()).then(|| self.module.get_or_init(|| make(&self.own).into()))
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::{Limits, Runner, Settings};
    use chordane::prelude::*;

    fn told(words: &Words) -> String {
        words.sound().map(|_| ()).unwrap_err().to_string()
    }

    #[test]
    fn words_that_cannot_be_are_refused() {
        let one = |form: &'static str| Words::new().add(form, "", "", |at: Point| at);
        assert!(one("knot(at)").sound().is_ok());
        assert_eq!(told(&one("circle(at)")), "there is already a word `circle`; choose another name");
        assert_eq!(
            told(&one("knot(at)").add("knot(by)", "", "", |by: f64| by)).split(';').next(),
            Some("there is already a word `knot`")
        );
        for name in ["let(at)", "3d(at)", "two words(at)", "(at)"] {
            assert!(told(&one(name)).contains("is not a valid name for a word"), "{name}");
        }
        assert_eq!(
            told(&one("knot(at, size)")),
            "`knot(at, size)` names 2 arguments, but its closure takes 1"
        );
        let read = Runner::read_with("a.chord", "sheet(9, 9)", Limits::default(), &one("if(at)"));
        assert!(read.is_err());
    }

    #[test]
    fn they_are_told_of_as_all_words_are() {
        let words = Words::new()
            .add(
                ".hemmed(width)",
                "A path with a hem.",
                "circle(pt(0, 0), 5).hemmed(2)",
                |path: Path, width: f64| path.stroke("teal", width),
            )
            .add("knot(at)", "A knot.", "knot(pt(0, 0))", |at: Point| {
                if at.x < 0.0 {
                    Err(ScoreError::new("a knot lies to the right").advise(Some("write 3".to_owned())))
                } else {
                    Ok(circle(at, 2.0))
                }
            })
            .add("knot(at, times)", "More of them.", "knot(pt(0, 0), 3)", |at: Point, times: usize| {
                (0..times).map(|i| circle(at, i as f64 + 1.0).fill("gold")).collect::<Vec<Item>>()
            });
        let run = |source: &str| {
            let runner = Runner::read_with("own.chord", source, Limits::default(), &words)?;
            runner.run(&Settings::new()).into_sheet()
        };
        let error = |source: &str| {
            let error = run(source).unwrap_err();
            (error.to_string(), error.advice().unwrap_or_default().to_owned(), error.line())
        };
        let drawn = run("let page = sheet(9, 9).add(knot(pt(3, 3)).hemmed(1));\nfor k in knot([3, 3], 4) { page.add(k); }\npage").unwrap();
        assert_eq!(drawn.items().len(), 5);
        let (message, advice, line) = error("sheet(9, 9)\n.add(knott(pt(0, 0)).hemmed(1))");
        assert_eq!(
            (&*message, &*advice, line),
            ("there is no word `knott`", "did you mean `knot`?", Some(2))
        );
        assert_eq!(
            error("knot(\"here\")").0,
            "`knot` wants a point for its at, and was given the text \"here\""
        );
        assert_eq!(error("knot()").1, "write `knot(at)` or `knot(at, times)`");
        assert_eq!(
            error("knot(pt(-1, 0))"),
            ("a knot lies to the right".to_owned(), "write 3".to_owned(), Some(1))
        );
        assert!(error("let p = knot(pt(0, 0)); p.hemmed(1); sheet(9, 9)").0.contains("nothing keeps it"));
    }
}
