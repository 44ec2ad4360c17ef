#pragma once

#include <stdlib.h>

#include <catch2/catch.hpp>
#include <filesystem>
#include <string>

namespace ombrek {

/// A folder of its own that goes with the test.
class Folder {
 public:
    Folder() {
        std::string name = (std::filesystem::temp_directory_path() / "ombrek-test-XXXXXX").string();
        REQUIRE(mkdtemp(name.data()) != nullptr);
        path_ = name;
    }
    ~Folder() {
        std::error_code error;
        std::filesystem::remove_all(path_, error);
    }
    Folder(const Folder&) = delete;
    Folder& operator=(const Folder&) = delete;
    std::filesystem::path operator/(const std::string& name) const { return path_ / name; }

 private:
    std::filesystem::path path_;
};

}  // namespace ombrek
