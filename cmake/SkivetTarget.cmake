# Flags every target of ours shares.
add_library(skivet_options INTERFACE)
target_compile_options(skivet_options INTERFACE -Wall -Wextra -Wpedantic -Wshadow -Wconversion -Wno-sign-conversion
                       -Wnon-virtual-dtor -Wold-style-cast -Wimplicit-fallthrough
                       # a multiplication and an addition stay two roundings, so that every machine encodes the same bytes
                       -ffp-contract=off
                       # false alarms inside tl::expected with GCC 12
                       $<$<CXX_COMPILER_ID:GNU>:-Wno-maybe-uninitialized>)
if(SKIVET_WERROR)
  target_compile_options(skivet_options INTERFACE -Werror)
endif()
# Vector code is compiled for plain C++ (EMU128), SSE4, AVX2 and AVX-512; SSSE3 machines take plain C++.
target_compile_definitions(skivet_options INTERFACE HWY_DISABLED_TARGETS=HWY_SSSE3)
if(SKIVET_FUZZ)
  add_compile_options(-fsanitize=fuzzer-no-link)  # without it the fuzzers do not see what an input reaches in the core
endif()
if(SKIVET_SANITIZE)
  # One target is enough to find a wrong index; with sanitizers all of them take minutes to compile, EMU128 most of all.
  target_compile_definitions(skivet_options INTERFACE HWY_COMPILE_ONLY_STATIC)
  target_compile_options(skivet_options INTERFACE -msse4.2 -maes -mpclmul)
  target_compile_options(skivet_options INTERFACE -fsanitize=address,undefined -fno-sanitize-recover=undefined
                         -fno-omit-frame-pointer)
  target_link_options(skivet_options INTERFACE -fsanitize=address,undefined)
endif()
if(SKIVET_TSAN)
  include_directories(BEFORE ${CMAKE_SOURCE_DIR}/tests/tsan)  # oneTBB by threads that it sees
  target_compile_definitions(skivet_options INTERFACE HWY_COMPILE_ONLY_STATIC)
  target_compile_options(skivet_options INTERFACE -msse4.2 -maes -mpclmul -fsanitize=thread -Wno-tsan)  # fences of the libraries' headers
  target_link_options(skivet_options INTERFACE -fsanitize=thread)
endif()

# skivet_expose(TARGET FOLDER): whoever links TARGET may include the files of src/FOLDER, as "FOLDER/file.h", and nothing else of src/. Each folder
# has a place of its own with a link to it; there is no include path to src/ itself, so what is not linked is not found.
function(skivet_expose target folder)
  set(place ${CMAKE_BINARY_DIR}/include/${folder})
  if(NOT EXISTS ${place}/${folder})
    file(MAKE_DIRECTORY ${place})
    file(CREATE_LINK ${CMAKE_SOURCE_DIR}/src/${folder} ${place}/${folder} SYMBOLIC)
  endif()
  target_include_directories(${target} PUBLIC ${place})
endfunction()

# skivet_library(NAME SOURCES... LINKS... PRIVATE...): one folder of src/, one target. LINKS: what it may include from, and what they may.
function(skivet_library name)
  cmake_parse_arguments(ARG "" "" "SOURCES;LINKS;PRIVATE" ${ARGN})
  add_library(skivet_${name} STATIC ${ARG_SOURCES})
  skivet_expose(skivet_${name} ${name})
  target_link_libraries(skivet_${name} PUBLIC skivet_options ${ARG_LINKS} PRIVATE ${ARG_PRIVATE})
  target_precompile_headers(skivet_${name} PRIVATE <algorithm> <array> <cstdint> <cstring> <functional> <memory>
                            <optional> <span> <string> <string_view> <utility> <vector>)
endfunction()
