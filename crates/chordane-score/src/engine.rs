//! The engine that runs scripts.
//!
//! What it knows (the words, their operators, the standard lists and maps) is put together once a process and shared; an
//! engine for a run only adds the limits and what the score is given.

use std::any::TypeId;
use std::ops::Deref;
use std::sync::{Arc, Mutex, OnceLock};

use chordane::chance::Dice;
use chordane::ground::Budget;
use chordane::number::Cell;
use chordane::prelude::*;
use rhai::packages::{BasicArrayPackage, BasicIteratorPackage, BasicMapPackage, CorePackage, Package};
use rhai::{
    Dynamic, Engine, FuncRegistration, ImmutableString, Module, NativeCallContext, RhaiFunc, Shared, Token,
};

use crate::Limits;
use crate::call::Call;
use crate::call_error::CallError;
use crate::declarations::Gathered;
use crate::lists::lists;
use crate::operators::operators;
use crate::running::{Running, Tag, running_of};
use crate::stage::Traced;
use crate::values::{Builder, ScoreKeys, ScoreStamp, description, numbers_in, shown};
use crate::words::{self, Kind, Word, Words};

/// An engine that reads scripts, until reading has to stop, and gathers the numbers in them.
pub(crate) fn reader(limits: &Limits, budget: &Budget, gathered: &Arc<Mutex<Gathered>>) -> Engine {
    let mut engine = plain(limits);
    // Reading a text or a name takes the square of its length.
    engine.set_max_string_size(limits.text.clamp(1, MAX_TOKEN_LEN));
    let (budget, gathered) = (budget.clone(), Arc::clone(gathered));
    #[allow(deprecated, reason = "the engine's way to say that a call may change; its version is pinned")]
    engine.on_parse_token(move |token, place, _| {
        if budget.ask().is_some() {
            return Token::EOF;
        }
        if let Ok(mut gathered) = gathered.lock() {
            gathered.read(&token, place);
        }
        token
    });
    engine
}

fn plain(limits: &Limits) -> Engine {
    let mut engine = Engine::new_raw();
    engine.register_global_module(module().clone());
    // Nothing that reaches outside the script, or waits.
    engine.disable_symbol("eval");
    engine.disable_symbol("sleep");
    // Built-in operators would divide whole numbers without their remainder.
    engine.set_fast_operators(false);
    // The engine takes 0 for no limit.
    engine.set_max_operations(limits.steps.max(1));
    engine.set_max_call_levels(limits.depth);
    engine.set_max_expr_depths(MAX_EXPR_DEPTH, MAX_EXPR_DEPTH_IN_FN);
    engine.set_max_variables(MAX_NAMES);
    engine.set_max_functions(MAX_NAMES);
    engine
}

/// How deep expressions may be nested, a chain of calls included. In functions it is less, since they may call one another.
const MAX_EXPR_DEPTH: usize = 2000;
const MAX_EXPR_DEPTH_IN_FN: usize = 400;

/// No text and no name that stands in a score is longer than this.
pub(crate) const MAX_TOKEN_LEN: usize = 100_000;

/// How many names of values and of functions there may be at once.
pub(crate) const MAX_NAMES: usize = 10_000;

/// Returns an engine for one run, with the words of a program.
pub(crate) fn engine(running: &Arc<Running>, words: &Words) -> Engine {
    let mut engine = plain(&running.limits);
    engine.set_default_tag(Dynamic::from(Tag(Arc::clone(running))));
    let (told, asked) = (Arc::clone(running), Arc::clone(running));
    engine.on_print(move |text| told.stage(|stage| stage.print(text)));
    engine.on_debug(move |text, _, _| asked.stage(|stage| stage.print(text)));
    let asked = Arc::clone(running);
    engine.on_progress(move |_| asked.exhausted().map(Dynamic::from));
    if let Some(module) = words.module(own_words) {
        engine.register_global_module(Shared::clone(module));
    }
    engine
}

/// What every engine knows, put together once: our own words first, then those of the engine's functions that we do not replace. It is one module, because
/// each call is looked up in every module, once for each combination of exact and general argument types.
fn module() -> &'static Shared<Module> {
    static MODULE: OnceLock<Shared<Module>> = OnceLock::new();
    MODULE.get_or_init(|| {
        let mut module = own_module();
        for package in [
            BasicMapPackage::new().as_shared_module(),
            BasicArrayPackage::new().as_shared_module(),
            BasicIteratorPackage::new().as_shared_module(),
            CorePackage::new().as_shared_module(),
        ] {
            module.fill_with(&package);
        }
        module.build_index();
        module.into()
    })
}

fn own_module() -> Module {
    let mut module = Module::new();
    module.set_var("PI", std::f64::consts::PI);
    types(&mut module);
    operators(&mut module);
    lists(&mut module);
    register_all(&mut module, words::all().collect());
    module
}

/// Returns the module of a program's own words.
fn own_words(words: &[Arc<Word>]) -> Module {
    let mut module = Module::new();
    register_all(&mut module, words.to_vec());
    module.build_index();
    module
}

/// Registers words, grouped by name and number of arguments.
fn register_all<W>(module: &mut Module, words: Vec<W>)
where
    W: Deref<Target = Word> + Clone + Send + Sync + 'static,
{
    let mut done: Vec<(&str, usize)> = Vec::new();
    for word in &words {
        let (name, arity) = (word.name, word.arity());
        if !done.contains(&(name, arity)) {
            done.push((name, arity));
            let forms = words.iter().filter(|word| word.name == name && word.arity() == arity);
            register(module, name, arity, forms.cloned().collect());
        }
    }
}

fn types(module: &mut Module) {
    module
        .set_custom_type::<Point>("point")
        .set_custom_type::<Angle>("angle")
        .set_custom_type::<Colour>("colour")
        .set_custom_type::<Gradient>("gradient")
        .set_custom_type::<Picture>("picture")
        .set_custom_type::<Pattern>("pattern")
        .set_custom_type::<Shades>("paint")
        .set_custom_type::<Path>("path")
        .set_custom_type::<Item>("item")
        .set_custom_type::<Style>("style")
        .set_custom_type::<Vertex>("vertex")
        .set_custom_type::<Through>("curve")
        .set_custom_type::<Cell>("cell")
        .set_custom_type::<Extent>("extent")
        .set_custom_type::<Triangle>("triangle")
        .set_custom_type::<Wheels>("wheels")
        .set_custom_type::<ScoreStamp>("stamp")
        .set_custom_type::<ScoreKeys>("keys")
        .set_custom_type::<Pose>("pose")
        .set_custom_type::<Timeline>("timeline")
        .set_custom_type::<Builder<Dice>>("dice")
        .set_custom_type::<Builder<Pen>>("pen")
        .set_custom_type::<Builder<Group>>("group")
        .set_custom_type::<Builder<Sheet>>("sheet");
    module.set_getter_fn("x", |p: &mut Point| Ok(p.x));
    module.set_getter_fn("y", |p: &mut Point| Ok(p.y));
    texts(module);
    no_sleep(module);
}

/// A word of the engine's that waits; no score has anything to wait for.
fn no_sleep(module: &mut Module) {
    let refused = || Err::<(), Box<rhai::EvalAltResult>>(CallError::new("there is no word `sleep`").into());
    let word = || FuncRegistration::new("sleep").in_global_namespace();
    word().set_into_module(module, move |_: i64| refused());
    word().set_into_module(module, move |_: f64| refused());
}

/// How values are printed and put into texts: all of them alike, and as many at once as one likes.
fn texts(module: &mut Module) {
    for kind in SHOWN_AS_TEXT.map(|kind| kind()) {
        for name in ["to_string", "print", "debug"] {
            raw(module, name, vec![kind], |values| values.iter().map(|value| shown(value)).collect());
        }
        let text = TypeId::of::<ImmutableString>();
        for kinds in [[kind, text], [text, kind]] {
            raw(module, "+", kinds.to_vec(), |values| values.iter().map(|value| shown(value)).collect());
        }
    }
    for name in ["to_string", "print", "debug"] {
        let text = FuncRegistration::new(name).in_global_namespace();
        text.set_into_module(module, |number: f64| number.to_string());
    }
    let joined = || FuncRegistration::new("+").in_global_namespace();
    joined().set_into_module(module, |a: &str, b: bool| format!("{a}{b}"));
    joined().set_into_module(module, |a: bool, b: &str| format!("{a}{b}"));
    // What `print` gives is what the engine prints.
    for count in 2..=MAX_PRINT_ARGS {
        raw(module, "print", vec![TypeId::of::<Dynamic>(); count], |values| {
            let texts: Vec<String> = values.iter().map(|value| shown(value)).collect();
            texts.join(" ")
        });
    }
}

/// The kinds of value that are printed and put into texts as [`shown`] has them.
const SHOWN_AS_TEXT: [fn() -> TypeId; 21] = [
    TypeId::of::<Point>,
    TypeId::of::<Angle>,
    TypeId::of::<rhai::Array>,
    TypeId::of::<rhai::Map>,
    TypeId::of::<Path>,
    TypeId::of::<Item>,
    TypeId::of::<Style>,
    TypeId::of::<Vertex>,
    TypeId::of::<Through>,
    TypeId::of::<Cell>,
    TypeId::of::<Extent>,
    TypeId::of::<Triangle>,
    TypeId::of::<Wheels>,
    TypeId::of::<ScoreStamp>,
    TypeId::of::<ScoreKeys>,
    TypeId::of::<Pose>,
    TypeId::of::<Timeline>,
    TypeId::of::<Builder<Dice>>,
    TypeId::of::<Builder<Pen>>,
    TypeId::of::<Builder<Group>>,
    TypeId::of::<Builder<Sheet>>,
];

/// Registers a function that turns arguments of the given types into a text.
fn raw(module: &mut Module, name: &str, kinds: Vec<TypeId>, text: fn(&[&mut Dynamic]) -> String) {
    let run =
        move |_: Option<NativeCallContext<'_>>, values: &mut [&mut Dynamic]| Ok(Dynamic::from(text(values)));
    let func =
        RhaiFunc::Method { func: Shared::new(run), has_context: false, is_pure: true, is_volatile: true };
    FuncRegistration::new(name).in_global_namespace().set_into_module_raw(module, kinds, func);
}

/// So many values are printed at once.
const MAX_PRINT_ARGS: usize = 12;

/// No word takes more values than these, the one it is called on counted.
const MAX_ARITY: usize = 6;

/// Registers the words of a name that take this many values, counting the one they are called on.
fn register<W>(module: &mut Module, name: &'static str, arity: usize, forms: Vec<W>)
where
    W: Deref<Target = Word> + Send + Sync + 'static,
{
    debug_assert!(arity <= MAX_ARITY, "{name} takes {arity}");
    let moves = words::is_of_motion(name);
    let run = move |context: Option<NativeCallContext<'_>>, values: &mut [&mut Dynamic]| {
        let context = context.ok_or_else(|| CallError::new("this word runs in a score only"))?;
        let running = running_of(&context)?;
        let none = Dynamic::UNIT;
        let mut given = [&none; MAX_ARITY];
        given.iter_mut().zip(values.iter()).for_each(|(given, value)| *given = value);
        let values = given.get(..arity).unwrap_or_default();
        let call = Call::new(name, &context, &running).on(values);
        let fitting = forms.iter().find(|word| word.stands_on(values) && word.mismatch(values).is_none());
        let made = match fitting {
            Some(word) => word.run(&call, values),
            None => Err(unfitting(&forms, values)),
        };
        // What went wrong in a function of the score is told as it is, at its own place.
        if let Some(failure) = call.failure() {
            return Err(failure);
        }
        if moves && let Ok(made) = &made {
            let line = context.call_position().line();
            running.stage(|stage| stage.gave(|| Traced { word: name, line, values: numbers_in(made) }));
        }
        if let Ok(made) = &made {
            running.memory.count(|| bytes_of(made));
        }
        running.stopped_in(name).map_or(made, Err).map_err(Into::into)
    };
    let func =
        RhaiFunc::Method { func: Shared::new(run), has_context: true, is_pure: true, is_volatile: true };
    let any = vec![TypeId::of::<Dynamic>(); arity];
    FuncRegistration::new(name).in_global_namespace().set_into_module_raw(module, any, func);
}

/// Returns the size in bytes of a value that a word has made, or 0 where it is small.
fn bytes_of(made: &Dynamic) -> usize {
    const MIN_BYTES: usize = 1 << 16;
    let bytes = if let Some(path) = made.read_lock::<Path>() {
        path.contours().iter().map(Contour::heap_bytes).sum()
    } else if let Ok(list) = made.as_array_ref() {
        list.len() * size_of::<Dynamic>()
    } else {
        made.as_immutable_string_ref().map_or(0, |text| text.len())
    };
    if bytes < MIN_BYTES { 0 } else { bytes }
}

/// What a share of a length is where no length is at hand.
const EXTENT_FIX: &str =
    "a share is of a length: write that length times the share, as in cell.size().x * 0.25";

/// Why no form of a word fits what it was called with.
fn unfitting<W: Deref<Target = Word>>(forms: &[W], values: &[&Dynamic]) -> CallError {
    let Some(word) = forms.iter().find(|word| word.stands_on(values)).or(forms.first()) else {
        return CallError::new("this word has no form");
    };
    let name = word.name;
    let (message, mend) = match word.mismatch(values).filter(|_| word.stands_on(values)) {
        Some((what, kind, given)) => (
            format!("`{name}` wants {} for its {what}, and was given {given}", kind.described()),
            match given.as_str() {
                "an extent" if kind == Kind::Number => Some(EXTENT_FIX),
                _ => kind.mend(),
            },
        ),
        None => {
            let mut on: Vec<&str> = Vec::new();
            for kind in forms.iter().flat_map(|word| word.on) {
                if !on.contains(&kind.described()) {
                    on.push(kind.described());
                }
            }
            let given = values.first().map_or_else(String::new, |value| description(value));
            let message = format!("`{name}` is called on {}, and this is {given}", on.join(" or "));
            (message, word.on.first().and_then(|kind| kind.mend()))
        }
    };
    CallError { message, advice: mend.map(str::to_owned), setting: None }
}
