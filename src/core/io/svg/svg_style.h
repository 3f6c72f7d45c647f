#pragma once

#include <libxml/tree.h>

namespace rim::io::svg {

/// Gives every element the properties that the document's style sheets set for it and that decide what shows (display,
/// visibility, fill, fill-rule, stroke), as attributes; an element's own style attribute still goes before them. Of
/// selectors plain element names and class names are known ("path", ".cut", "g .cut"): what is told of the last one
/// holds, classes go before names, later rules before earlier ones.
void applyStyleSheets(xmlNode* root);

}  // namespace rim::io::svg
