# What every target of the project is compiled with. Other people's headers are system headers.
add_library(snugrim_flags INTERFACE)
target_compile_options(snugrim_flags INTERFACE
  -Wall -Wextra -Wpedantic -Wconversion -Wshadow
  # GCC 12 sees overlapping copies in "text" + std::string where there are none (GCC bug 105651).
  $<$<CXX_COMPILER_ID:GNU>:-Wno-restrict>
  # The same digits on every machine: no fused multiply-add behind our back.
  -ffp-contract=off)
target_compile_definitions(snugrim_flags INTERFACE SNUGRIM_VERSION="${PROJECT_VERSION}")
if(SNUGRIM_SANITIZE)
  target_compile_options(snugrim_flags INTERFACE
    -fsanitize=address,undefined -fno-sanitize-recover=undefined -fno-omit-frame-pointer)
  target_link_options(snugrim_flags INTERFACE -fsanitize=address,undefined)
endif()
