//! Ranges as lists: `(0..5).map(|i| ..)`, as a list has it.

use rhai::{Array, Dynamic, EvalAltResult, FnPtr, FuncRegistration, Module, NativeCallContext};

use crate::refusal::Refusal;

/// Registers what ranges share with lists.
pub(crate) fn ranges(module: &mut Module) {
    macro_rules! of_range {
        ($range:ty) => {
            let word = |name| FuncRegistration::new(name).in_global_namespace();
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
                    Ok::<_, Box<EvalAltResult>>(kept)
                },
            );
        };
    }
    of_range!(std::ops::Range<i64>);
    of_range!(std::ops::RangeInclusive<i64>);
}

type Made<T> = Result<T, Box<EvalAltResult>>;

/// The numbers of a range, if a list of them is short enough.
fn listed(
    context: &NativeCallContext<'_>,
    range: impl Iterator<Item = i64> + Clone,
) -> Made<impl Iterator<Item = i64>> {
    let most = context.engine().max_array_size();
    if range.clone().nth(most).is_some() {
        let told = Refusal::new(format!("the range has more than {most} numbers, which is too long a list"));
        return Err(told.advise("the limit can be raised with --max-list").into());
    }
    Ok(range)
}
