//! Lists and ranges: how long and how deep a list may become, and `(0..5).map(|i| ..)` as a list has it.
//!
//! The engine would measure a whole list, and all lists in it, whenever it changes: a list of n values would take n squared.
//! Here its length is looked at where it grows, and what is put in with all that is in it. What is taken out of a list is looked at for its depth: put into another one
//! again and again it would become so deep that the machine's stack is not enough to throw it away.

use std::ops::{Range, RangeInclusive};

use rhai::{
    Array, Dynamic, EvalAltResult, FnPtr, FuncRegistration, ImmutableString, Map, Module, NativeCallContext,
};

use crate::call_error::CallError;
use crate::running::{limits_of, running_of};
use crate::values::{any_number, description};

type Made<T> = Result<T, Box<EvalAltResult>>;

/// Lists and maps may be nested so deep.
const MAX_NESTING: usize = 500;

/// Registers what lists and ranges do, and how texts grow.
pub(crate) fn lists(module: &mut Module) {
    grow(module);
    texts(module);
    sort(module);
    take_out(module);
    ranges(module);
}

fn word(name: &str) -> FuncRegistration {
    FuncRegistration::new(name).in_global_namespace()
}

/// Counts values, those inside lists and maps included; stops once there are more than `most`.
fn deep_count<'a>(values: impl IntoIterator<Item = &'a Dynamic>, most: usize) -> usize {
    let mut count = 0;
    for value in values {
        count += 1;
        if count > most {
            break;
        }
        let left = most - count;
        if let Ok(list) = value.as_array_ref() {
            count += deep_count(list.iter(), left);
        } else if let Ok(map) = value.as_map_ref() {
            count += deep_count(map.values(), left);
        }
    }
    count
}

/// Fails if adding the values `times` times makes the list longer than the limit; nested values count.
fn room<'a>(
    context: &NativeCallContext<'_>,
    list: usize,
    times: usize,
    values: impl IntoIterator<Item = &'a Dynamic>,
) -> Made<()> {
    let running = running_of(context)?;
    let most = running.limits.list;
    let more = deep_count(values, most).saturating_mul(times);
    if list.saturating_add(more) <= most {
        running.memory.count(|| more * size_of::<Dynamic>());
        return Ok(());
    }
    let told = CallError::new(format!("the list gets longer than {most} values"));
    Err(told.set("list", "look for a loop that goes on too long, or raise the limit").into())
}

/// The words that make a list longer.
fn grow(module: &mut Module) {
    word("push").set_into_module(
        module,
        |context: NativeCallContext<'_>, list: &mut Array, value: Dynamic| {
            room(&context, list.len(), 1, [&value])?;
            list.push(value);
            Made::Ok(())
        },
    );
    word("insert").set_into_module(
        module,
        |context: NativeCallContext<'_>, list: &mut Array, at: i64, value: Dynamic| {
            room(&context, list.len(), 1, [&value])?;
            list.insert(place(at, list.len()), value);
            Made::Ok(())
        },
    );
    for name in ["append", "+="] {
        word(name).set_into_module(
            module,
            |context: NativeCallContext<'_>, list: &mut Array, mut more: Array| {
                room(&context, list.len(), 1, &more)?;
                list.append(&mut more);
                Made::Ok(())
            },
        );
    }
    word("+").set_into_module(module, |context: NativeCallContext<'_>, mut list: Array, mut more: Array| {
        room(&context, list.len(), 1, &more)?;
        list.append(&mut more);
        Made::Ok(list)
    });
    word("pad").set_into_module(
        module,
        |context: NativeCallContext<'_>, list: &mut Array, length: i64, value: Dynamic| {
            let length = usize::try_from(length).unwrap_or(0);
            room(&context, list.len(), length.saturating_sub(list.len()), [&value])?;
            if length > list.len() {
                list.resize(length, value);
            }
            Made::Ok(())
        },
    );
}

/// Texts put together, as long as they may be.
fn texts(module: &mut Module) {
    let room = |context: &NativeCallContext<'_>, a: &str, b: &str| {
        let most = limits_of(context)?.text;
        if a.len().saturating_add(b.len()) <= most {
            return Made::Ok(());
        }
        let told = CallError::new(format!("the text gets longer than {most} characters"));
        Err(told.set("text", "look for a loop that goes on too long, or raise the limit").into())
    };
    word("+").set_into_module(module, move |context: NativeCallContext<'_>, a: &str, b: &str| {
        room(&context, a, b)?;
        Made::Ok(format!("{a}{b}"))
    });
    word("+=").set_into_module(
        module,
        move |context: NativeCallContext<'_>, a: &mut ImmutableString, b: &str| {
            room(&context, a, b)?;
            *a += b;
            Made::Ok(())
        },
    );
}

/// Sorting by what the score's own function says, and of numbers and texts.
fn sort(module: &mut Module) {
    for name in ["sort", "sort_by"] {
        word(name).set_into_module(
            module,
            move |context: NativeCallContext<'_>, list: &mut Array, f: FnPtr| {
                *list = merged(std::mem::take(list), &mut |a, b| {
                    let said = f.call_within_context::<Dynamic>(&context, (a.clone(), b.clone()))?;
                    let order = any_number(&said)
                        .or_else(|| said.as_bool().ok().map(|after| if after { 1.0 } else { -1.0 }));
                    order.map(|order| order > 0.0).ok_or_else(|| {
                        let given = description(&said);
                        let told = format!("the function of `{name}` has to give a number, and gave {given}");
                        CallError::new(told)
                            .advise("give a number below 0 where the first value comes first: list.sort(|a, b| a - b)")
                            .into()
                    })
                })?;
                Made::Ok(())
            },
        );
    }
    for (name, down) in [("sort", false), ("sort_desc", true)] {
        word(name).set_into_module(module, move |list: &mut Array| {
            let mixed = || {
                CallError::new(
                    "a list can be sorted without a function only if it holds only numbers or only texts",
                )
                .advise("say how: list.sort(|a, b| a.length() - b.length())")
            };
            *list = merged(std::mem::take(list), &mut |a, b| {
                let after = match (any_number(a), any_number(b)) {
                    (Some(a), Some(b)) => {
                        if down {
                            a < b
                        } else {
                            a > b
                        }
                    }
                    _ => match (a.as_immutable_string_ref(), b.as_immutable_string_ref()) {
                        (Ok(a), Ok(b)) => {
                            if down {
                                *a < *b
                            } else {
                                *a > *b
                            }
                        }
                        _ => return Err(mixed().into()),
                    },
                };
                Ok(after)
            })?;
            Made::Ok(())
        });
    }
}

/// A list sorted by whether one value comes after another: halves are sorted and merged, which also ends where the answers
/// contradict one another.
fn merged(mut list: Array, after: &mut impl FnMut(&Dynamic, &Dynamic) -> Made<bool>) -> Made<Array> {
    if list.len() < 2 {
        return Ok(list);
    }
    let behind = list.split_off(list.len() / 2);
    let (first, second) = (merged(list, after)?, merged(behind, after)?);
    let mut all = Array::with_capacity(first.len() + second.len());
    let (mut first, mut second) = (first.into_iter().peekable(), second.into_iter().peekable());
    while let (Some(a), Some(b)) = (first.peek(), second.peek()) {
        let next = if after(a, b)? { second.next() } else { first.next() };
        all.extend(next);
    }
    all.extend(first);
    all.extend(second);
    Ok(all)
}

/// The words that take something out of a list or map and give it.
fn take_out(module: &mut Module) {
    word("pop").set_into_module(module, |list: &mut Array| shallow(list.pop().unwrap_or_default()));
    word("shift").set_into_module(module, |list: &mut Array| {
        shallow(if list.is_empty() { Dynamic::UNIT } else { list.remove(0) })
    });
    word("remove").set_into_module(module, |list: &mut Array, at: i64| {
        let at = place(at, list.len());
        shallow(if at < list.len() { list.remove(at) } else { Dynamic::UNIT })
    });
    word("remove")
        .set_into_module(module, |map: &mut Map, name: &str| shallow(map.remove(name).unwrap_or_default()));
    word("split").set_into_module(module, |list: &mut Array, at: i64| {
        let at = place(at, list.len());
        shallow(list.split_off(at).into())
    });
    for (name, wanted) in [("drain", true), ("retain", false)] {
        let parted = move |context: &NativeCallContext<'_>, list: &mut Array, f: &FnPtr| {
            let (mut taken, mut kept) = (Array::new(), Array::new());
            for value in std::mem::take(list) {
                let yes = f.call_within_context::<Dynamic>(context, (value.clone(),))?;
                let yes = yes.as_bool().unwrap_or(false);
                if yes == wanted { taken.push(value) } else { kept.push(value) }
            }
            *list = kept;
            shallow(taken.into())
        };
        word(name)
            .set_into_module(module, move |context: NativeCallContext<'_>, list: &mut Array, f: FnPtr| {
                parted(&context, list, &f)
            });
        let cut = move |list: &mut Array, begin: usize, end: usize| {
            let (begin, end) = (begin.min(list.len()), end.min(list.len()).max(begin.min(list.len())));
            let within: Array = list.drain(begin..end).collect();
            let taken = if wanted { within } else { std::mem::replace(list, within) };
            shallow(taken.into())
        };
        word(name).set_into_module(module, move |list: &mut Array, range: Range<i64>| {
            let (begin, end) = (range.start.max(0) as usize, range.end.max(0) as usize);
            cut(list, begin, end)
        });
        word(name).set_into_module(module, move |list: &mut Array, range: RangeInclusive<i64>| {
            let (begin, end) =
                (*range.start().max(&0) as usize, range.end().saturating_add(1).max(0) as usize);
            cut(list, begin, end)
        });
        word(name).set_into_module(module, move |list: &mut Array, begin: i64, count: i64| {
            let begin = place(begin, list.len());
            cut(list, begin, begin.saturating_add(count.max(0) as usize))
        });
        word(name).set_into_module(module, move |context: NativeCallContext<'_>, map: &mut Map, f: FnPtr| {
            let (mut taken, mut kept) = (Map::new(), Map::new());
            for (name, value) in std::mem::take(map) {
                let with = (name.to_string(), value.clone());
                let yes = f.call_within_context::<Dynamic>(&context, with)?.as_bool().unwrap_or(false);
                if yes == wanted {
                    taken.insert(name, value)
                } else {
                    kept.insert(name, value)
                };
            }
            *map = kept;
            shallow(taken.into())
        });
    }
}

/// A place counted from 0, or from -1 at the end, as one of a list of this length or its end.
fn place(at: i64, length: usize) -> usize {
    let size = at.unsigned_abs() as usize;
    if at < 0 { length.saturating_sub(size) } else { size.min(length) }
}

/// What was taken out, unless lists and maps stand in one another too deep in it.
fn shallow(value: Dynamic) -> Made<Dynamic> {
    if deeper_than(&value, MAX_NESTING) {
        let told = format!("lists and maps are nested more than {MAX_NESTING} deep");
        return Err(CallError::new(told).advise("put the values side by side in one list").into());
    }
    Ok(value)
}

fn deeper_than(value: &Dynamic, levels: usize) -> bool {
    let inside = |value: &Dynamic| levels == 0 || deeper_than(value, levels - 1);
    match (value.as_array_ref(), value.as_map_ref()) {
        (Ok(list), _) => list.iter().any(inside),
        (_, Ok(map)) => map.values().any(inside),
        _ => false,
    }
}

/// What ranges share with lists.
fn ranges(module: &mut Module) {
    macro_rules! of_range {
        ($range:ty) => {
            word("map").set_into_module(module, |context: NativeCallContext<'_>, range: $range, f: FnPtr| {
                let values = listed(&context, range)?;
                values.map(|i| f.call_within_context::<Dynamic>(&context, (i,))).collect::<Made<Array>>()
            });
            word("filter").set_into_module(
                module,
                |context: NativeCallContext<'_>, range: $range, f: FnPtr| {
                    let mut kept = Array::new();
                    for i in listed(&context, range)? {
                        if f.call_within_context::<Dynamic>(&context, (i,))?.as_bool().unwrap_or(false) {
                            kept.push(i.into());
                        }
                    }
                    Made::Ok(kept)
                },
            );
        };
    }
    of_range!(Range<i64>);
    of_range!(RangeInclusive<i64>);
}

/// The numbers of a range, if a list of them is short enough.
fn listed(
    context: &NativeCallContext<'_>,
    range: impl Iterator<Item = i64> + Clone,
) -> Made<impl Iterator<Item = i64>> {
    let most = limits_of(context)?.list;
    if range.clone().nth(most).is_some() {
        let told =
            CallError::new(format!("the range has more than {most} numbers, which is too long a list"));
        return Err(told.set("list", "make it shorter, or raise the limit").into());
    }
    Ok(range)
}
