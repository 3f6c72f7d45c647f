#pragma once

#include <set>
#include <string>

#include "core/drawing/drawing.h"

/// Layers of a drawing, by name.
namespace rim::refine {

/// The place of a layer in the drawing's list; none: there is none of that name.
std::optional<std::size_t> layerNamed(const Drawing& drawing, const std::string& name);

/// The drawing with a layer that is called and coloured otherwise; as it was when there is none of that name. When
/// another one is called so already, both become one.
Drawing withLayerAs(const Drawing& drawing, const std::string& name, const Layer& as);

/// The drawing without the outlines of a layer; the layer itself stays in the list.
Drawing withLayerHidden(const Drawing& drawing, const std::string& name);

/// Some outlines put on a layer, which is made when there is none of that name. What stays behind of a drawing that had
/// no layers is on one of its own, called "outlines".
Drawing onLayer(const Drawing& drawing, const std::set<OutlineId>& outlines, const Layer& layer);

}  // namespace rim::refine
