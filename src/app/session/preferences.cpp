// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/session/preferences.h"

#include <QDir>
#include <QFileInfo>
#include <QLocale>
#include <QSettings>
#include <QStandardPaths>

#include <algorithm>

namespace inchpeg::app
{

namespace
{

constexpr int kMostRecent = 8;
constexpr Dimension kChosen[] = {Dimension::Force,  Dimension::Stress, Dimension::Energy,
                                 Dimension::Length, Dimension::Torque, Dimension::Temperature};

QString unitKey(Dimension dimension)
{
    return QStringLiteral("units/") + QString::fromUtf8(dimensionName(dimension));
}

} // namespace

Preferences::Preferences(QObject *parent) : QObject(parent) {}

QString Preferences::unit(Dimension dimension) const
{
    const QString kept = QSettings().value(unitKey(dimension)).toString();
    const auto choice = choosableUnits(dimension);
    const bool known = std::any_of(choice.begin(), choice.end(), [&](std::string_view symbol) {
        return kept == QString::fromUtf8(symbol);
    });
    return known ? kept : QString::fromUtf8(choice.front());
}

void Preferences::setUnit(Dimension dimension, const QString &symbol)
{
    QSettings().setValue(unitKey(dimension), symbol);
    emit notationChanged();
}

DecimalMark Preferences::decimalMark() const
{
    const QString kept = QSettings().value(QStringLiteral("decimalMark")).toString();
    return kept == QStringLiteral("point")   ? DecimalMark::Point
           : kept == QStringLiteral("comma") ? DecimalMark::Comma
                                             : DecimalMark::AsSystem;
}

void Preferences::setDecimalMark(DecimalMark mark)
{
    QSettings().setValue(QStringLiteral("decimalMark"), mark == DecimalMark::Point ? QStringLiteral("point")
                                                        : mark == DecimalMark::Comma
                                                            ? QStringLiteral("comma")
                                                            : QStringLiteral("system"));
    emit notationChanged();
}

Notation Preferences::notation() const
{
    Notation notation;
    for (const Dimension dimension : kChosen) {
        const Status chosen = notation.choose(unit(dimension).toStdString());
        require(chosen.has_value(), "unit() yields what may be chosen");
    }
    const bool comma =
        decimalMark() == DecimalMark::Comma ||
        (decimalMark() == DecimalMark::AsSystem && QLocale::system().decimalPoint() == QStringLiteral(","));
    notation.setDecimalMark(comma ? ',' : '.');
    return notation;
}

bool Preferences::isDark() const
{
    return QSettings().value(QStringLiteral("theme")).toString() == QStringLiteral("workshop");
}

void Preferences::setDark(bool dark)
{
    QSettings().setValue(QStringLiteral("theme"),
                         dark ? QStringLiteral("workshop") : QStringLiteral("paper"));
    emit looksChanged();
}

double Preferences::fontSize() const
{
    return std::clamp(QSettings().value(QStringLiteral("fontSize"), kUsualFontSize).toDouble(),
                      kSmallestFontSize, kLargestFontSize);
}

void Preferences::setFontSize(double points)
{
    QSettings().setValue(QStringLiteral("fontSize"), points);
    emit looksChanged();
}

bool Preferences::areTonesOn() const
{
    return QSettings().value(QStringLiteral("tones"), true).toBool();
}

void Preferences::setTonesOn(bool on)
{
    QSettings().setValue(QStringLiteral("tones"), on);
}

QString Preferences::folder() const
{
    const QString kept = QSettings().value(QStringLiteral("folder")).toString();
    if (QFileInfo(kept).isDir())
        return kept;
    const QString documents = QStandardPaths::writableLocation(QStandardPaths::DocumentsLocation);
    return QFileInfo(documents).isDir() ? documents : QDir::homePath();
}

void Preferences::setFolder(const QString &folder)
{
    QSettings().setValue(QStringLiteral("folder"), folder);
}

QStringList Preferences::recentProjects() const
{
    QStringList paths = QSettings().value(QStringLiteral("recentProjects")).toStringList();
    paths.removeIf([](const QString &path) { return !QFileInfo::exists(path); });
    return paths;
}

void Preferences::addRecentProject(const QString &path)
{
    const QString absolute = QFileInfo(path).absoluteFilePath();
    QStringList paths = QSettings().value(QStringLiteral("recentProjects")).toStringList();
    paths.removeAll(absolute);
    paths.prepend(absolute);
    QSettings().setValue(QStringLiteral("recentProjects"), QStringList(paths.mid(0, kMostRecent)));
    emit recentProjectsChanged();
}

void Preferences::forgetRecentProjects()
{
    QSettings().remove(QStringLiteral("recentProjects"));
    emit recentProjectsChanged();
}

} // namespace inchpeg::app
