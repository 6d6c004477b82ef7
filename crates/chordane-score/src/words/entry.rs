//! What an entry of the table is made of: how a word is written, what it does, an example, and the call into the library,
//! whose Rust types say which kinds it takes and gives.

use std::fmt;

use rhai::Dynamic;

use crate::call::Call;
use crate::call_error::CallError;
use crate::values::{Give, Kind, Take, description};

/// One word of a score.
///
/// ```
/// use chordane_score::words;
/// let word = words::named("circle").next().ok_or("no such word")?;
/// assert_eq!(word.form(), "circle(centre, radius)");
/// # Ok::<(), &str>(())
/// ```
pub struct Word {
    /// What it is called.
    pub name: &'static str,
    /// The kinds of value it is called on, as in `path.moved(..)`; none for a word that stands alone.
    pub on: &'static [Kind],
    /// What it takes: a name and a kind for each.
    pub takes: Vec<(&'static str, Kind)>,
    /// What it gives.
    pub gives: Kind,
    /// Whether it changes what it is called on where it stands, and gives that back.
    pub in_place: bool,
    /// What it does, in a sentence or two.
    pub about: &'static str,
    /// An example that runs.
    pub example: &'static str,
    /// The number of arguments of its function, including the receiver.
    counts: usize,
    run: Box<Run>,
}

type Run = dyn Fn(&Word, &Call<'_>, &[&Dynamic]) -> Result<Dynamic, CallError> + Send + Sync;

impl fmt::Debug for Word {
    fn fmt(&self, out: &mut fmt::Formatter<'_>) -> fmt::Result {
        out.debug_struct("Word").field("form", &self.form()).finish_non_exhaustive()
    }
}

impl Word {
    /// The word as it is written: `circle(centre, radius)` or `path.moved(step)`.
    #[must_use]
    pub fn form(&self) -> String {
        let takes: Vec<&str> = self.takes.iter().map(|(name, _)| *name).collect();
        let on: Vec<&str> = self.on.iter().map(|kind| kind.plain()).collect();
        let dot = if on.is_empty() { "" } else { "." };
        format!("{}{dot}{}({})", on.join("|"), self.name, takes.join(", "))
    }

    /// Builds an entry from the form of the word. Not generic: it would be compiled again for each of hundreds of words.
    fn described(
        form: &'static str,
        about: &'static str,
        example: &'static str,
        types: Types,
        run: Box<Run>,
    ) -> Self {
        let (method, plain) = form.strip_prefix('.').map_or((false, form), |rest| (true, rest));
        let (name, rest) = plain.split_once('(').unwrap_or((plain, ""));
        let names: Vec<_> = rest.trim_end_matches(')').split(", ").filter(|name| !name.is_empty()).collect();
        let (on, kinds) = match types.takes.split_first() {
            Some((on, kinds)) if method => (*on, kinds),
            _ => (&[][..], types.takes),
        };
        let kind = |kinds: &&'static [Kind]| kinds.first().copied().unwrap_or(Kind::Value);
        let takes = names.into_iter().zip(kinds.iter().map(kind)).collect();
        let counts = types.takes.len();
        Self { name, on, takes, gives: types.gives, in_place: types.in_place, about, example, counts, run }
    }

    /// How many values it is called with, the one that it is called on counted.
    pub(crate) fn arity(&self) -> usize {
        self.counts
    }

    /// Whether it can be called on the first value.
    pub(crate) fn stands_on(&self, values: &[&Dynamic]) -> bool {
        self.on.is_empty()
            || values.first().is_some_and(|value| self.on.iter().any(|kind| kind.accepts(value)))
    }

    /// The first value that is not of the kind that the word takes there: its name, the kind, and what it is.
    pub(crate) fn mismatch(&self, values: &[&Dynamic]) -> Option<(&'static str, Kind, String)> {
        let given = values.iter().skip(usize::from(!self.on.is_empty()));
        let wrong = self.takes.iter().zip(given).find(|((_, kind), value)| !kind.accepts(value));
        wrong.map(|((name, kind), value)| (*name, *kind, description(value)))
    }

    /// Carries the word out with values of the kinds that it takes.
    pub(crate) fn run(&self, call: &Call<'_>, values: &[&Dynamic]) -> Result<Dynamic, CallError> {
        (self.run)(self, call, values)
    }
}

/// Words that belong together.
///
/// ```
/// use chordane_score::words;
/// for section in words::sections() {
///     println!("{}: {} words", section.title, section.words.len());
/// }
/// ```
#[derive(Debug)]
pub struct Section {
    /// The heading.
    pub title: &'static str,
    /// What they have in common.
    pub about: &'static str,
    /// The words, in the order in which they are best met.
    pub words: Vec<Word>,
}

/// A function that carries a word out: its arguments are values that can be taken, its result one that can be given. [`Words`](super::Words) says which
/// those are.
pub trait Carries<A> {
    /// The argument and result types of the function.
    #[doc(hidden)]
    const TYPES: Types;

    #[doc(hidden)]
    fn carry(&self, word: &Word, call: &Call<'_>, values: &[&Dynamic]) -> Result<Dynamic, CallError>;
}

/// The types of a word's function.
#[derive(Debug)]
pub struct Types {
    /// The kinds of each argument.
    takes: &'static [&'static [Kind]],
    gives: Kind,
    in_place: bool,
}

/// The same for one that looks at the call: it asks functions of the score, or what the score was given.
#[derive(Debug)]
pub struct Asking;

/// One argument, unless there is too much of it.
fn taken<T: Take>(at: usize, word: &Word, call: &Call<'_>, values: &[&Dynamic]) -> Result<T, CallError> {
    let Some(value) = values.get(at).and_then(|value| T::take(value, call)) else {
        return Err(not_taken(word));
    };
    match value.too_much(call) {
        None => Ok(value),
        Some((count, most)) => Err(too_many(at, word, count, most)),
    }
}

/// Unreachable in practice: the kinds are checked before a word runs.
#[cold]
fn not_taken(word: &Word) -> CallError {
    CallError::new(format!("`{}` cannot take this", word.name))
}

#[cold]
fn too_many(at: usize, word: &Word, count: usize, most: usize) -> CallError {
    let argument = at.checked_sub(usize::from(!word.on.is_empty())).and_then(|at| word.takes.get(at));
    let name = argument.map_or("value", |(name, _)| name);
    let told = format!("`{}`: {count} is too many for its {name}; give at most {most}", word.name);
    CallError::new(told).set("list", "make it shorter, or raise the limit")
}

macro_rules! carries {
    ($($type:ident $at:tt),*) => {
        impl<F, R, $($type),*> Carries<($($type,)*)> for F
        where
            F: Fn($($type),*) -> R,
            R: Give,
            $($type: Take,)*
        {
            const TYPES: Types = Types { takes: &[$($type::KINDS),*], gives: R::KIND, in_place: R::IN_PLACE };

            #[allow(unused_variables, reason = "a word without arguments")]
            fn carry(&self, word: &Word, call: &Call<'_>, values: &[&Dynamic]) -> Result<Dynamic, CallError> {
                self($(taken::<$type>($at, word, call, values)?),*).give(call)
            }
        }

        impl<F, R, $($type),*> Carries<(Asking, $($type,)*)> for F
        where
            F: Fn(&Call<'_>, $($type),*) -> R,
            R: Give,
            $($type: Take,)*
        {
            const TYPES: Types = Types { takes: &[$($type::KINDS),*], gives: R::KIND, in_place: R::IN_PLACE };

            #[allow(unused_variables, reason = "a word without arguments")]
            fn carry(&self, word: &Word, call: &Call<'_>, values: &[&Dynamic]) -> Result<Dynamic, CallError> {
                self(call, $(taken::<$type>($at, word, call, values)?),*).give(call)
            }
        }
    };
}

carries!();
carries!(A 0);
carries!(A 0, B 1);
carries!(A 0, B 1, C 2);
carries!(A 0, B 1, C 2, D 3);
carries!(A 0, B 1, C 2, D 3, E 4);
carries!(A 0, B 1, C 2, D 3, E 4, G 5);

/// An entry of the table. `form` is how the word is written, with the names of what it takes: `"circle(centre, radius)"`, or
/// with a point in front where it is called on its first argument: `".moved(step)"`.
pub(super) fn word<A, F>(form: &'static str, about: &'static str, example: &'static str, carry: F) -> Word
where
    F: Carries<A> + Send + Sync + 'static,
{
    let run =
        Box::new(move |word: &Word, call: &Call<'_>, values: &[&Dynamic]| carry.carry(word, call, values));
    Word::described(form, about, example, F::TYPES, run)
}
