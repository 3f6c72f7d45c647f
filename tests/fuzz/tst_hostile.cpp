// The corpus of the fuzz targets and thousands of spoiled copies of it: the same on every run.

#include <QDir>
#include <QFile>
#include <QTest>
#include <random>

#include "fuzz/targets.h"
#include "support/test_list.h"

using Target = void (*)(const std::uint8_t*, std::size_t);
Q_DECLARE_METATYPE(Target)

namespace {

/// Bytes changed, left out, doubled or put in, as a transmission or a bad program would.
QByteArray spoiled(QByteArray bytes, std::mt19937& random) {
  static const QList<QByteArray> kWords{"1e300",       "-1e-300", "nan", "inf", "0", "-1",
                                        "99999999999", "\n",      "<g>", "/>",  "z"};
  const auto place = [&] { return static_cast<qsizetype>(random() % static_cast<unsigned>(bytes.size() + 1)); };
  for (unsigned k = 1 + random() % 4; k > 0 && !bytes.isEmpty(); --k) {
    switch (random() % 4) {
      case 0:
        bytes[static_cast<qsizetype>(random() % static_cast<unsigned>(bytes.size()))] = static_cast<char>(random());
        break;
      case 1:
        bytes.remove(place(), static_cast<qsizetype>(random() % 12));
        break;
      case 2:
        bytes.insert(place(), bytes.mid(place(), static_cast<qsizetype>(random() % 40)));
        break;
      default:
        bytes.insert(place(), kWords[static_cast<qsizetype>(random() % static_cast<unsigned>(kWords.size()))]);
    }
  }
  return random() % 10 == 0 ? bytes.left(place()) : bytes;
}

}  // namespace

class TestHostile : public QObject {
  Q_OBJECT

 private slots:
  void nothingCrashesHangsOrBreaksItsPromise_data() {
    QTest::addColumn<QString>("folder");
    QTest::addColumn<Target>("target");
    QTest::newRow("SVG") << "svg" << Target(rim::test::fuzzSvg);
    QTest::newRow("DXF") << "dxf" << Target(rim::test::fuzzDxf);
    QTest::newRow("mender") << "mend" << Target(rim::test::fuzzMend);
  }
  void nothingCrashesHangsOrBreaksItsPromise() {
    QFETCH(QString, folder);
    QFETCH(Target, target);
    const QDir dir(QStringLiteral(SOURCE_FOLDER "/tests/fuzz/corpus/") + folder);
    const QStringList names = dir.entryList(QDir::Files);
    QVERIFY(!names.isEmpty());
    std::mt19937 random(20261125);
    for (const QString& name : names) {
      QFile file(dir.filePath(name));
      QVERIFY(file.open(QIODevice::ReadOnly));
      const QByteArray whole = file.readAll();
      const auto feed = [target](const QByteArray& bytes) {
        target(reinterpret_cast<const std::uint8_t*>(bytes.constData()), static_cast<std::size_t>(bytes.size()));
      };
      feed(whole);
      constexpr int kCopies = 200;
      for (int k = 0; k < kCopies; ++k) feed(spoiled(whole, random));
    }
  }
};

RIM_TEST(TestHostile)
#include "tst_hostile.moc"
