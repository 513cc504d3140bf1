// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/text/notation.h"

#include <QObject>
#include <QString>
#include <QStringList>

namespace inchpeg::app
{

enum class DecimalMark { AsSystem, Point, Comma };

/// What a person set for all projects: kept by name in the desktop's own settings, in force at once.
class Preferences : public QObject
{
    Q_OBJECT
public:
    explicit Preferences(QObject *parent = nullptr);

    [[nodiscard]] Notation notation() const; ///< units and decimal mark
    [[nodiscard]] QString unit(Dimension dimension) const;
    void setUnit(Dimension dimension, const QString &symbol);
    [[nodiscard]] DecimalMark decimalMark() const;
    void setDecimalMark(DecimalMark mark);

    [[nodiscard]] bool isDark() const;
    void setDark(bool dark);
    /// In points.
    [[nodiscard]] double fontSize() const;
    void setFontSize(double points);

    /// Whether the bench is heard.
    [[nodiscard]] bool areTonesOn() const;
    void setTonesOn(bool on);

    /// Where new projects and pictures are offered to be kept.
    [[nodiscard]] QString folder() const;
    void setFolder(const QString &folder);

    /// Newest first; those that are gone are left out.
    [[nodiscard]] QStringList recentProjects() const;
    void addRecentProject(const QString &path);
    void forgetRecentProjects();

signals:
    void notationChanged();
    void looksChanged();
    void recentProjectsChanged();
};

inline constexpr double kUsualFontSize = 10.0;
inline constexpr double kSmallestFontSize = 8.0;
inline constexpr double kLargestFontSize = 18.0;

} // namespace inchpeg::app
