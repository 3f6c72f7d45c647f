#include "fuzz/targets.h"

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
  rim::test::fuzzMend(data, size);
  return 0;
}
