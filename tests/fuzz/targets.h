#pragma once

#include <cstddef>
#include <cstdint>

namespace rim::test {

/// What is fuzzed. Each takes any bytes; it may refuse them with InputError, which is caught, but must not crash, hang
/// or let out an outline that is not what it says: finite, and closed where it is called closed. A broken promise
/// aborts.
void fuzzSvg(const std::uint8_t* data, std::size_t size);
void fuzzDxf(const std::uint8_t* data, std::size_t size);
/// The bytes are a few lines, arcs and curves near each other, which are inspected and mended.
void fuzzMend(const std::uint8_t* data, std::size_t size);

}  // namespace rim::test
