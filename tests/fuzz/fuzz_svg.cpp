#include "fuzz/targets.h"

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
  rim::test::fuzzSvg(data, size);
  return 0;
}
