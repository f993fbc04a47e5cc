#pragma once

#include <string>

namespace skivet::test {

/// Where things lie on this machine, known to one file alone: what is compiled from the tests is then the same in every clone.
extern const char* const programs_folder;      ///< the programs of this build
extern const char* const sheets_folder;        ///< assets/sheets
extern const char* const tests_folder;         ///< tests
extern const char* const layouts_folder;       ///< tests/layouts
extern const char* const packaging_folder;     ///< packaging
extern const char* const fairground_folder;    ///< the demo's game of this build, for reading only
extern const char* const node_modules_folder;  ///< what run-tests installs for Node.js

/// A program of this build.
inline std::string our_program(const std::string& name) { return std::string(programs_folder) + "/" + name; }

}  // namespace skivet::test
