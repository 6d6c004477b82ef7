//! What people look for by another name: what it is called in mathematics, in other trades, or in plain speech.

/// Other names, and what is written here instead.
const MEANINGS: &[(&[&str], &str)] = &[
    (&["rect", "square", "box", "oblong"], "rectangle(corner, width, height)"),
    (&["disc", "disk", "round"], "circle(centre, radius)"),
    (&["oval"], "ellipse(centre, radius_x, radius_y)"),
    (
        &["ellipse_arc", "elliptical_arc", "arc_ellipse"],
        "elliptic_arc(centre, radius_x, radius_y, start, sweep)",
    ),
    (&["segment", "slice", "wedge", "sector"], "pie(centre, radius, start, sweep)"),
    (&["donut", "annulus", "torus"], "ring(centre, outer, inner)"),
    (&["pentagon", "hexagon", "octagon", "regular_polygon", "ngon"], "polygon(centre, n, radius)"),
    (&["path", "shape", "begin", "move_to", "moveto"], "start(point) to begin a path"),
    (&["line_to", "lineto", "vertex"], "start(point).line(point)"),
    (&["polyline", "points"], "open(points) or closed(points)"),
    (&["bezier", "curve_to", "bezier_to", "bezier_curve"], "start(point).cubic(control1, control2, end)"),
    (&["quadratic", "quadratic_curve"], "start(point).quad(control, end)"),
    (&["spline", "curve", "smooth_curve"], "through(points).open() or .close()"),
    (&["guide", "guides"], "through(points).led(before, behind)"),
    (&["translate", "translated", "shift", "move", "offset_by"], ".moved(step)"),
    (&["rotate", "spin", "turn_by"], ".rotated(angle)"),
    (&["scale", "resize", "zoom"], ".scaled(factor)"),
    (&["skew", "shear", "slant"], ".sheared(..)"),
    (&["mirror", "flip", "reflect"], ".mirrored(..)"),
    (&["reverse", "invert"], ".reversed()"),
    (&["close_path", "closed_path"], ".close()"),
    (&["subtract", "cut", "minus", "exclude"], ".difference(other)"),
    (&["add_path", "merge", "unite", "combine"], ".union(other)"),
    (&["intersect", "overlap"], ".intersection(other)"),
    (&["clip", "mask", "clip_path"], ".clipped(by)"),
    (&["colour", "color", "fill_colour", "fill_color"], ".fill(\"#c8553d\")"),
    (&["hue", "hsl", "hsb", "hsv", "rgb", "rgba"], "the colour as a text: .fill(\"hsl(20 60% 50%)\")"),
    (&["stroke_width", "line_width", "thickness"], ".stroke(colour, width)"),
    (&["transparent", "alpha", "translucent"], ".opacity(share)"),
    (&["background", "bg", "clear"], ".ground(colour) of the sheet"),
    (&["canvas", "page", "size"], "sheet(width, height)"),
    (&["draw", "show", "render", "display"], ".add(..) to the sheet"),
    (&["text", "label", "letters", "font", "write"], "lettering(text, at, height)"),
    (&["random", "rand", "rnd", "random_number"], "dice(\"name\").between(low, high)"),
    (&["noise"], "dice(\"name\").wander(x)"),
    (&["choose", "choice", "sample"], "dice(\"name\").pick(list)"),
    (&["lerp", "map_range", "remap", "interpolate", "linear"], "rescale(value, [0, 1], [low, high])"),
    (&["constrain", "limit", "bound"], "clamp(value, low, high)"),
    (&["distance", "dist", "hypot", "magnitude", "norm"], "(a - b).length()"),
    (&["atan2", "heading_of"], "atan(y, x)"),
    (&["arcsin"], "asin(number)"),
    (&["arccos"], "acos(number)"),
    (&["arctan"], "atan(slope)"),
    (&["ln", "log10", "log2", "logarithm"], "log(number, base)"),
    (&["power", "exponent", "square_of"], "pow(base, exponent)"),
    (&["mod", "modulo", "remainder", "fmod"], "a % b"),
    (&["int", "trunc", "to_int", "integer"], "floor(number)"),
    (&["degrees", "degree", "to_radians"], "deg(number)"),
    (&["radians", "radian", "to_degrees"], "rad(number)"),
    (&["tau", "TAU", "TWO_PI", "two_pi"], "turns(1), or 2 * PI for the number"),
    (&["pi", "Pi"], "PI"),
    (&["e", "E", "euler"], "exp(1)"),
    (&["slider", "param", "parameter", "variable"], "knob(\"name\", start, low, high)"),
    (&["width", "height", "bounding_box", "bbox"], ".size() or .bounds()"),
    (&["contains", "hit", "hit_test"], ".inside(spot)"),
    (&["perimeter", "circumference"], ".length()"),
    (&["log_to_console", "console", "println", "echo"], "print(..)"),
    (&["append", "add_to"], "list.push(value)"),
    (&["count", "size_of", "length_of"], "list.len()"),
    (&["function", "func", "def"], "fn name(x) { .. }"),
    (&["elseif", "elif"], "else if"),
    (&["repeat", "loop_over"], "for i in 0..n { .. }"),
    (&["grid", "squared_paper"], "cell.grid(columns, rows)"),
];

/// What to write for a name that something here has elsewhere; `None` for names that mean nothing.
///
/// ```
/// assert_eq!(chordane_score::words::by_meaning("oval"), Some("ellipse(centre, radius_x, radius_y)"));
/// ```
#[must_use]
pub fn by_meaning(name: &str) -> Option<&'static str> {
    MEANINGS.iter().find(|(names, _)| names.contains(&name)).map(|(_, write)| *write)
}
