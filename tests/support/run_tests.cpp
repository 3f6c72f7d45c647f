// The program of a room's tests: ROOM CLASS [arguments of Qt Test]. Without a class it runs them all.

#ifdef RIM_WITH_WINDOW
#include <QApplication>
using Application = QApplication;
#else
#include <QCoreApplication>
using Application = QCoreApplication;
#endif
#include <QTest>
#include <iostream>

#include "core/picture/vips_library.h"
#include "support/test_list.h"

int main(int argc, char** argv) {
  rim::picture::startVipsAlone();
  Application application(argc, argv);
  QStringList arguments = QCoreApplication::arguments();
  const QString wanted = arguments.size() > 1 ? arguments.takeAt(1) : QString();
  int failed = 0;
  int run = 0;
  for (const rim::test::TestClass& one : rim::test::testClasses()) {
    if (!wanted.isEmpty() && one.name != wanted) continue;
    ++run;
    failed += QTest::qExec(one.make().get(), arguments) != 0 ? 1 : 0;
  }
  if (run == 0) std::cerr << "There is no test class " << qPrintable(wanted) << " here.\n";
  return run == 0 || failed > 0 ? 1 : 0;
}
