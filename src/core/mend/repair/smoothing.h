#pragma once

#include <vector>

#include "core/mend/find/crossings.h"

namespace rim::mend {

/// The path parted at some of its own crossings, all at once: whoever comes to one leaves it along the other pass, in
/// the direction in which that runs, so that both passes turn away from each other instead of crossing. This is the
/// oriented smoothing of knot diagrams (H. Seifert, 1935; from memory): nothing of the line is lost, what the outline
/// winds round stays wound round, and parts meet only in the places where they crossed.
///
/// The first part is the one that the path's start lies on; an open path stays the only open one. `crossings` are the
/// path's own (mend/find/crossings.h). n log n in their number.
std::vector<Path> smoothed(const Path& path, const std::vector<TrueCrossing>& crossings);

/// The crossings that hang together with one of them: whose loops, going round, are entered and left through it or
/// through another one that hangs together with it. Smoothed together, what comes of them crosses none of each other.
std::vector<TrueCrossing> interlacedWith(const std::vector<TrueCrossing>& crossings, std::size_t which);

}  // namespace rim::mend
