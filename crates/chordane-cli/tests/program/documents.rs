//! Documents as other programs write them, for comparison with a browser: one for each rule of reading.

/// The head of each, and what is drawn in it on pale ground, 160 by 120.
const BEGIN: &str = r##"<svg xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink" width="160" height="120" viewBox="0 0 160 120"><rect width="160" height="120" fill="#f4efe6"/>"##;

/// The documents: the name and the whole text of each.
pub(crate) fn documents() -> impl Iterator<Item = (String, String)> {
    let aspects = ["none", "xMinYMin", "xMidYMid", "xMaxYMax", "xMinYMid slice", "xMaxYMin slice"];
    let aspect = |how: &str| {
        let name = format!("aspect-{}", how.replace(' ', "-"));
        let body = format!(
            r##"<svg x="20" y="15" width="110" height="80" viewBox="0 0 40 60" preserveAspectRatio="{how}"><rect width="40" height="60" fill="#9fc3c1"/><circle cx="20" cy="30" r="19" fill="teal"/></svg>"##
        );
        (name, body)
    };
    let all = BODIES.iter().map(|(name, body)| ((*name).to_owned(), (*body).to_owned()));
    all.chain(aspects.into_iter().map(aspect))
        .map(|(name, body)| (format!("document-{name}"), format!("{BEGIN}\n{body}</svg>\n")))
}

const BODIES: &[(&str, &str)] = &[
    (
        "shapes",
        r##"<g fill="teal" stroke="navy" stroke-width="3"><rect x="10" y="10" width="60" height="40" rx="12"/><ellipse cx="110" cy="40" rx="36" ry="22"/>
<polygon points="20,110 50,60 80,110"/><path d="M90 110Q120 60 150 110" fill="none" stroke-linecap="round"/></g>"##,
    ),
    (
        "gradients",
        r##"<defs><linearGradient id="base"><stop offset="0" stop-color="gold"/><stop offset=".4" style="stop-color:teal;stop-opacity:.6"/><stop offset="100%" stop-color="navy"/></linearGradient>
<linearGradient id="down" xlink:href="#base" x2="0" y2="1"/><radialGradient id="round" href="#base" cx="60" cy="80" r="30" fx="70" fy="72" gradientUnits="userSpaceOnUse" spreadMethod="reflect" gradientTransform="rotate(20 60 80) scale(1.2 .9)"/></defs>
<rect x="10" y="10" width="60" height="40" fill="url(#down)"/><circle cx="60" cy="84" r="30" fill="url(#round)"/><path d="M90 20H150V100" fill="none" stroke="url(#base)" stroke-width="14" stroke-opacity=".8"/>"##,
    ),
    (
        "pattern",
        r##"<pattern id="p" width=".2" height=".25"><circle cx="5" cy="5" r="4" fill="teal"/></pattern><pattern id="q" width="12" height="12" patternUnits="userSpaceOnUse" viewBox="0 0 6 6" patternTransform="rotate(30)"><rect width="3" height="6" fill="navy"/></pattern>
<rect x="10" y="10" width="60" height="60" fill="url(#p)"/><circle cx="110" cy="70" r="40" fill="url(#q)"/>"##,
    ),
    (
        "clips",
        r##"<clipPath id="star"><path clip-rule="evenodd" d="M80 10L110 100 30 45H130L50 100Z"/></clipPath><clipPath id="box" clipPathUnits="objectBoundingBox"><circle cx=".5" cy=".5" r=".45"/></clipPath><clipPath id="both" clip-path="url(#star)"><rect x="30" y="20" width="100" height="50"/></clipPath>
<g clip-path="url(#both)"><rect width="160" height="120" fill="teal"/></g><rect x="10" y="80" width="30" height="30" fill="navy" clip-path="url(#box)" transform="rotate(10 25 95)"/><g clip-path="url(#star)" opacity=".4"><rect width="160" height="120" fill="gold"/></g>"##,
    ),
    (
        "masks",
        r##"<linearGradient id="g"><stop stop-color="white"/><stop offset="1" stop-color="black"/></linearGradient><mask id="m" maskContentUnits="objectBoundingBox"><rect width="1" height="1" fill="url(#g)"/></mask><mask id="a" style="mask-type:alpha" maskUnits="userSpaceOnUse" x="0" y="0" width="160" height="120"><circle cx="120" cy="70" r="30" fill="black"/></mask>
<rect x="10" y="15" width="80" height="60" fill="teal" mask="url(#m)"/><g mask="url(#a)"><rect x="80" y="30" width="70" height="80" fill="#c8553d"/><rect x="100" y="50" width="50" height="20" fill="gold"/></g>"##,
    ),
    (
        "filters",
        r##"<filter id="f" x="-50%" y="-50%" width="200%" height="200%" color-interpolation-filters="sRGB"><feGaussianBlur stdDeviation="2"/></filter><filter id="s" x="-50%" y="-50%" width="200%" height="200%" color-interpolation-filters="sRGB"><feDropShadow dx="4" dy="5" stdDeviation="2" flood-color="navy" flood-opacity=".6"/></filter>
<circle cx="45" cy="60" r="28" fill="teal" filter="url(#f)"/><rect x="90" y="30" width="50" height="50" fill="gold" filter="url(#s)"/>"##,
    ),
    (
        "style-sheets",
        r##"<style>@media print { rect { fill: red } } rect { fill: #eeddbb } .sail { fill: teal !important; opacity: .9; stroke: #20303c; stroke-width: 4 } #first { fill: orange } g.flight > .sail.vent { fill: #c8553d !important }
g .deep polygon { fill: currentColor; stroke: inherit } polygon:first-child { stroke: crimson !important } polygon:nth-child(2n+1) { stroke-dasharray: 8 4 } polygon + polygon { stroke-width: 5 }
[data-kind="kite"] { fill: gold } polygon:hover { fill: black } stop.a { stop-color: gold } stop.b { stop-color: currentColor } .grad { fill: url(#g) }</style>
<defs><linearGradient id="g" color="crimson"><stop class="a" offset="0"/><stop class="b" offset="1"/></linearGradient></defs>
<g class="flight"><polygon id="first" class="sail" points="10,10 50,10 30,55"/><polygon class="sail vent" points="60,10 100,10 80,55"/><polygon class="sail" points="110,10 150,10 130,55" style="fill: plum"/></g>
<g stroke="#664422" stroke-width="3" color="#225588"><g class="deep"><polygon points="10,65 50,65 30,110" stroke="red"/><polygon points="60,65 100,65 80,110" data-kind="kite"/><polygon class="grad" points="110,65 150,65 130,110" style="fill:url(#g) !important; stroke-width: 2 /* thin */"/></g></g>"##,
    ),
    (
        "handed-down",
        r##"<g fill="teal" opacity=".8" color="navy"><rect x="10" y="10" width="30" height="30" fill="red" style="fill:inherit;opacity:inherit"/><rect x="90" y="10" width="30" height="30" style="fill:initial"/><rect x="10" y="65" width="30" height="30" fill="currentColor" stroke="gold" stroke-width="6"/></g>
<g fill="gold"><mask id="m"><rect x="80" y="60" width="80" height="60"/></mask><pattern id="p" width="20" height="20" patternUnits="userSpaceOnUse"><circle cx="10" cy="10" r="8"/></pattern></g><rect x="90" y="65" width="60" height="40" fill="url(#p)" stroke="teal" mask="url(#m)"/>"##,
    ),
    (
        "blend",
        r##"<g style="isolation:isolate"><rect x="10" y="20" width="90" height="60" fill="gold"/><rect x="60" y="40" width="80" height="60" fill="teal" style="mix-blend-mode:multiply"/></g>"##,
    ),
    (
        "image",
        r##"<image x="10" y="10" width="60" height="90" style="image-rendering:pixelated" href="data:image/png;base64,iVBORw0KGgoAAAANSUhEUgAAAAIAAAACCAIAAAD91JpzAAAAFklEQVR4nGM8EWqbLmXGJOjP8vHgSQAerAT00rwpAAAAAABJRU5ErkJggg=="/>"##,
    ),
    (
        "nested",
        r##"<svg x="10" y="10" width="60" height="40"><circle cx="30" cy="20" r="30" fill="teal"/></svg><svg x="80" y="10" width="60" height="40" overflow="visible"><circle cx="30" cy="20" r="30" fill="gold"/></svg><svg x="50%" y="60%" width="25%" height="30%" viewBox="0 0 10 10"><rect width="50%" height="100%" fill="navy"/></svg>"##,
    ),
    (
        "symbol",
        r##"<symbol id="kite" viewBox="0 0 20 30"><path d="M10 0L20 12 10 30 0 12Z"/></symbol><use href="#kite" x="10" y="10" width="40" height="60" fill="teal"/><use href="#kite" x="70" y="40" width="60" height="60" fill="gold" stroke="navy" transform="rotate(-8 100 70)"/>"##,
    ),
    (
        "switch",
        r##"<switch><rect systemLanguage="xx" width="160" height="120" fill="red"/><circle cx="60" cy="60" r="40" fill="teal"/><rect width="160" height="120" fill="navy"/></switch>"##,
    ),
    (
        "paint-order",
        r##"<path d="M30 20H130V100H30Z" fill="gold" stroke="navy" stroke-width="20" stroke-linejoin="round" paint-order="stroke"/>"##,
    ),
    (
        "path-length",
        r##"<path d="M20 60C20 10 140 10 140 60S20 110 20 60Z" fill="none" stroke="teal" stroke-width="8" pathLength="12" stroke-dasharray="4 2"/>"##,
    ),
    (
        "display",
        r##"<g display="none"><rect width="160" height="120"/></g><g visibility="hidden"><rect x="10" y="10" width="60" height="60"/><rect x="80" y="20" width="60" height="60" fill="teal" visibility="visible"/></g>"##,
    ),
    (
        "style",
        r##"<g style="fill:teal!important;stroke:navy;stroke-width:4" fill="red" color="gold"><circle cx="40" cy="60" r="25"/><circle cx="110" cy="60" r="25" fill="currentColor" style="stroke:inherit"/></g>"##,
    ),
    (
        "units",
        r##"<rect x="5%" y="0.25in" width="1cm" height="30pt" fill="teal"/><circle cx="60%" cy="50%" r="20%" fill="gold" stroke="navy" stroke-width="1mm"/>"##,
    ),
    (
        "foreign-namespace",
        r##"<rect width="160" height="120" fill="#f4efe6"/><x:rect xmlns:x="urn:x" width="160" height="120"/><x:g xmlns:x="urn:x"><circle cx="30" cy="30" r="20"/></x:g><rect xmlns="" width="50" height="50"/><circle cx="80" cy="60" r="30" fill="teal"/>"##,
    ),
    (
        "clip-use-move",
        r##"<defs><circle id="s" r="30"/></defs><clipPath id="c"><use href="#s" x="50" y="60" transform="scale(1.2 1)"/><use href="#s" x="110" y="60"/></clipPath><rect width="160" height="120" fill="teal" clip-path="url(#c)"/>"##,
    ),
    (
        "clip-use-clip2",
        r##"<clipPath id="d"><rect x="0" y="0" width="60" height="60"/></clipPath><defs><circle id="s" r="40"/></defs><clipPath id="c"><use href="#s" x="50" y="40" clip-path="url(#d)" transform="translate(20 20)"/></clipPath><rect width="160" height="120" fill="teal" clip-path="url(#c)"/>"##,
    ),
    (
        "clip-child-clip",
        r##"<clipPath id="d"><rect x="0" y="0" width="60" height="60"/></clipPath><clipPath id="c"><circle cx="50" cy="40" r="40" clip-path="url(#d)" transform="translate(20 20)"/></clipPath><rect width="160" height="120" fill="teal" clip-path="url(#c)"/>"##,
    ),
    (
        "clip-own-clip",
        r##"<clipPath id="d"><rect x="0" y="0" width="60" height="60"/></clipPath><clipPath id="c" clip-path="url(#d)" transform="translate(20 20)"><circle cx="50" cy="40" r="40"/></clipPath><rect width="160" height="120" fill="teal" clip-path="url(#c)"/>"##,
    ),
    (
        "clip-use-use",
        r##"<defs><rect id="r" width="60" height="60"/><use id="s" href="#r" x="20"/></defs><clipPath id="c"><use href="#s"/></clipPath><rect width="160" height="120" fill="teal" clip-path="url(#c)"/>"##,
    ),
    (
        "clip-g",
        r##"<clipPath id="c"><g><rect width="60" height="60"/></g><circle cx="100" cy="60" r="30"/></clipPath><rect width="160" height="120" fill="teal" clip-path="url(#c)"/>"##,
    ),
    (
        "clip-use-rule",
        r##"<defs><path id="s" d="M20 20H140V100H20Z M50 40H110V80H50Z"/></defs><clipPath id="c"><use href="#s" clip-rule="evenodd"/></clipPath><rect width="160" height="120" fill="teal" clip-path="url(#c)"/>"##,
    ),
    (
        "clip-use-hidden",
        r##"<defs><path id="s" visibility="hidden" d="M20 20H140V100H20Z"/></defs><clipPath id="c"><use href="#s"/><circle cx="80" cy="60" r="50"/></clipPath><rect width="160" height="120" fill="teal" clip-path="url(#c)"/>"##,
    ),
    (
        "transform-style",
        r##"<rect width="40" height="30" fill="teal" style="transform:translate(26px, 10px) rotate(15deg)"/>"##,
    ),
    (
        "transform-sheet",
        r##"<style>.k{transform:translate(50%,20px) scale(1.5)} #b{transform:rotate(.1turn) skewX(10deg)}</style><rect class="k" width="30" height="20" fill="teal"/><rect id="b" x="50" y="10" width="30" height="20" fill="navy"/>"##,
    ),
    (
        "transform-both",
        r##"<rect width="40" height="30" fill="teal" transform="translate(90 20)" style="transform:translate(26px, 10px)"/>"##,
    ),
    (
        "transform-origin",
        r##"<rect x="40" y="30" width="40" height="30" fill="teal" transform="rotate(30)" transform-origin="60 45"/>"##,
    ),
    (
        "transform-origin-shares",
        r##"<rect x="40" y="30" width="40" height="30" fill="teal" style="transform:rotate(30deg);transform-origin:50% 25%"/>"##,
    ),
    (
        "transform-fill-box",
        r##"<rect x="40" y="30" width="40" height="30" fill="teal" stroke="navy" stroke-width="8" style="transform:rotate(30deg);transform-origin:center;transform-box:fill-box"/>"##,
    ),
    (
        "transform-fill-box-move",
        r##"<rect x="40" y="30" width="40" height="30" fill="teal" style="transform:translate(100%, 50%);transform-box:fill-box"/>"##,
    ),
    (
        "transform-stroke-box",
        r##"<rect x="40" y="30" width="40" height="30" fill="teal" stroke="navy" stroke-width="16" style="transform:rotate(30deg);transform-origin:0 0;transform-box:stroke-box"/>"##,
    ),
    (
        "transform-fill-box-g",
        r##"<g style="transform:rotate(45deg) scale(.8);transform-origin:50% 50%;transform-box:fill-box"><rect x="40" y="30" width="40" height="30" fill="teal"/><circle cx="100" cy="80" r="20" fill="navy"/></g>"##,
    ),
    (
        "transform-fill-box-use",
        r##"<defs><circle id="c" r="20" cx="30" cy="30"/></defs><use href="#c" x="40" style="transform:scale(1.5,.5);transform-origin:center;transform-box:fill-box" fill="teal"/>"##,
    ),
    (
        "transform-fill-box-nested",
        r##"<svg x="20" y="10" width="80" height="80" viewBox="0 0 40 40"><rect width="40" height="40" fill="#eee"/><rect x="5" y="5" width="10" height="10" fill="teal" style="transform:rotate(45deg);transform-origin:50% 50%"/></svg>"##,
    ),
    (
        "transform-clip",
        r##"<clipPath id="c" style="transform:translate(20px,10px)"><circle cx="50" cy="40" r="30" style="transform:scale(1.5,1)"/></clipPath><rect width="160" height="120" fill="teal" clip-path="url(#c)"/>"##,
    ),
    (
        "transform-nested-svg",
        r##"<svg width="40" height="30" transform="translate(60 40) rotate(20)"><rect width="100%" height="100%" fill="teal"/></svg>"##,
    ),
    (
        "transform-properties",
        r##"<rect width="40" height="30" fill="teal" style="translate:40px 20px;rotate:20deg;scale:1.5 .8"/><rect width="10" height="10" style="translate:20px"/>"##,
    ),
    (
        "gradient-transform",
        r##"<linearGradient id="g" style="transform:rotate(45deg)"><stop stop-color="gold"/><stop offset="1" stop-color="navy"/></linearGradient><rect width="100" height="80" fill="url(#g)"/>"##,
    ),
    (
        "pattern-transform",
        r##"<pattern id="g" width="20" height="20" patternUnits="userSpaceOnUse" style="transform:scale(2)"><rect width="10" height="10" fill="teal"/></pattern><rect width="100" height="80" fill="url(#g)"/>"##,
    ),
    (
        "focal-circle-shares",
        r##"<radialGradient id="g" fr="25%"><stop stop-color="gold"/><stop offset=".5" stop-color="teal"/><stop offset="1" stop-color="navy"/></radialGradient><rect x="10" y="10" width="140" height="80" fill="url(#g)"/>"##,
    ),
    (
        "focal-circle-spread",
        r##"<radialGradient id="g" gradientUnits="userSpaceOnUse" cx="80" cy="60" r="30" fr="10" spreadMethod="reflect"><stop stop-color="gold"/><stop offset="1" stop-color="navy"/></radialGradient><rect width="160" height="120" fill="url(#g)"/>"##,
    ),
    (
        "focal-circle-off",
        r##"<radialGradient id="g" gradientUnits="userSpaceOnUse" cx="80" cy="60" r="30" fx="40" fy="60" fr="15"><stop stop-color="gold"/><stop offset="1" stop-color="navy"/></radialGradient><rect width="160" height="120" fill="url(#g)"/>"##,
    ),
    (
        "focal-circle-chain",
        r##"<radialGradient id="b" fr="20%" fx="40%"><stop stop-color="gold"/><stop offset="1" stop-color="navy"/></radialGradient><radialGradient id="g" href="#b" gradientTransform="rotate(30 .5 .5) scale(1 .7)"/><rect x="10" y="10" width="140" height="100" fill="url(#g)"/>"##,
    ),
    (
        "geometry-in-style",
        r##"<style>circle{cx:80px;cy:60px;r:30px}</style><circle fill="teal"/><rect style="x:10px;y:10px;width:30px;height:20px;rx:5px" fill="navy"/><path style="d:path('M120 20H150V60Z')" fill="gold"/>"##,
    ),
    (
        "switch-extensions",
        r##"<switch><rect requiredExtensions="http://x.y" width="50" height="50" fill="red"/><rect width="50" height="50" fill="teal"/></switch>"##,
    ),
    (
        "use-clip-moved",
        r##"<clipPath id="d"><rect width="60" height="60"/></clipPath><defs><circle id="s" r="40"/></defs><use href="#s" x="50" y="40" clip-path="url(#d)" transform="translate(20 20)" fill="teal"/>"##,
    ),
];
