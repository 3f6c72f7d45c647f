#pragma once

#include <QFileInfo>
#include <QObject>
#include <functional>
#include <memory>
#include <vector>

namespace rim::test {

/// A class of tests, called like its file.
struct TestClass {
  QString name;
  std::function<std::unique_ptr<QObject>()> make;
};

/// The classes of this program. One program holds those of a room, and each is an entry of CTest.
inline std::vector<TestClass>& testClasses() {
  static std::vector<TestClass> classes;
  return classes;
}

template <typename Class>
struct Listed {
  explicit Listed(const char* file) {
    testClasses().push_back({QFileInfo(QString(file)).completeBaseName(), [] { return std::make_unique<Class>(); }});
  }
};

}  // namespace rim::test

/// Puts a class on the list; stands once in its file, after the class.
#define RIM_TEST(Class) static const rim::test::Listed<Class> listed##Class(__FILE__);
