// How true outlines are, judged from outside: figures by formulas (polygons, arcs, ellipse, Reuleaux triangle,
// involute gear) and letters by their font file are drawn by cairo, spoiled, traced by the command line and read back
// by svgelements. The bounds are the goals for medians; `./run bench accuracy` measures all figures.

#include <QProcess>
#include <QTest>

class TestAccuracy : public QObject {
  Q_OBJECT

 private slots:
  void outlinesAreAsTrueAsPromised_data() {
    QTest::addColumn<double>("p95");
    QTest::addColumn<double>("corner");
    QTest::addColumn<double>("corner90");
    QTest::addColumn<double>("segments");
    QTest::newRow("clean") << 0.05 << 0.10 << 0.30 << 1.15;
    QTest::newRow("jpeg") << 0.10 << 0.25 << 0.60 << 1.4;
    QTest::newRow("light") << 0.15 << 0.30 << 0.80 << 1.5;
  }

  void outlinesAreAsTrueAsPromised() {
    QFETCH(double, p95);
    QFETCH(double, corner);
    QFETCH(double, corner90);
    QFETCH(double, segments);
    QProcess measure;
    measure.start("/usr/bin/python3", {SOURCE_FOLDER "/benchmarks/accuracy/measure.py", CLI_PROGRAM,
                                       QTest::currentDataTag(), "--every", "3"});
    QVERIFY(measure.waitForFinished(250'000));
    QVERIFY2(measure.exitCode() == 0, measure.readAllStandardError().constData());
    const QStringList rows = QString::fromUtf8(measure.readAllStandardOutput()).trimmed().split('\n');
    const QStringList cells = rows.last().split('|');
    QVERIFY2(cells.size() == 8, qPrintable(rows.last()));
    const QStringList corners = cells[4].split('/');
    QVERIFY2(cells[2].toDouble() <= p95 && cells[2].toDouble() > 0, qPrintable(rows.last()));
    QVERIFY2(corners[0].toDouble() <= corner && corners[1].toDouble() <= corner90, qPrintable(rows.last()));
    QVERIFY2(cells[5].toDouble() <= segments, qPrintable(rows.last()));
    QVERIFY2(cells[6].trimmed().startsWith("0 of 16"), qPrintable(rows.last()));
  }
};

QTEST_APPLESS_MAIN(TestAccuracy)
#include "tst_accuracy.moc"
