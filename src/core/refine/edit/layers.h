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

/// The drawing with a layer at another place of the list (0: the first), its outlines in that order, as a file writes
/// them; as it was when there is none of that name. `place` beyond the end is the end.
Drawing withLayerAt(const Drawing& drawing, const std::string& name, std::size_t place);

/// The drawing without the outlines on these layers; the layers themselves stay in the list.
Drawing withoutLayers(const Drawing& drawing, const std::set<std::string>& names);

/// Some outlines put on a layer, which is made when there is none of that name. What stays behind of a drawing that had
/// no layers is on one of its own, called "outlines".
Drawing onLayer(const Drawing& drawing, const std::set<OutlineId>& outlines, const Layer& layer);

}  // namespace rim::refine
